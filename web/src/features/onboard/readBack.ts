import { Problem, type Schemas } from '../../api/client';
import { readHere } from '../../api/onDevice';

const PURPOSES = {
  MASK: 'MASK',
  GATEWAY: 'GATEWAY',
  RESOLVER_1: 'RESOLVER',
  RESOLVER_2: 'RESOLVER',
  PARTNER_ADDRESS: 'RESOLVER',
} as const;

/** What a field of the sheet is read as. */
export const purpose = (field: string) => PURPOSES[field as keyof typeof PURPOSES] ?? 'ADDRESS';

/** What is read back at a gate, with what should be read there. */
function rows(
  step: Schemas['StepView'],
  book: Schemas['RunbookView'],
  e: Schemas['EndpointView'],
): { field: string; label: string; value?: string }[] {
  if (step.gate.type === 'ADDRESS_SHOWN')
    return [{ field: 'ADDRESS', label: step.gate.ask, value: e.address ?? undefined }];
  if (step.gate.type !== 'READ_BACK') return [];
  return book.readBack.filter((r) => r.part === step.gate.part && r.figures);
}

/** A slip that this device finds by itself in what was read back, where no server can be asked; or nothing. */
export async function slipped(
  step: Schemas['StepView'],
  book: Schemas['RunbookView'],
  e: Schemas['EndpointView'],
  evidence: Record<string, string>,
): Promise<Problem | null> {
  for (const row of rows(step, book, e)) {
    const text = evidence[row.field]?.trim();
    if (!text) continue;
    try {
      const asked = { text, purpose: purpose(row.field), expected: row.value };
      const read = await readHere('address', asked, e.id);
      const said = read.findings[0]?.message ?? read.slip?.message;
      if (!read.usable || read.slip) return new Problem(0, 'slip', `${row.label}: ${said ?? ''}`);
    } catch {
      return null; // it cannot be read here; it is judged when it is sent
    }
  }
  return null;
}
