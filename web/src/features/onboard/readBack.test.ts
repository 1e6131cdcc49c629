import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { readHere } from '../../api/onDevice';
import { slipped } from './readBack';

vi.mock('../../api/onDevice', () => ({ readHere: vi.fn() }));

const reading = (more = {}) => ({ value: 'x', notes: [], findings: [], slip: null, usable: true, ...more });

beforeEach(() => void vi.mocked(readHere).mockReset());

describe('what is read back where no server can be asked', () => {
  const gate = (type: string) => ({ gate: { type, part: '', ask: 'Which address?' } }) as Schemas['StepView'];
  const row = (field: string, label: string, figures = true) => ({
    field,
    label,
    figures,
    part: '',
    value: 'v',
  });
  const book = {
    readBack: [row('ADDRESS', 'Address'), row('MASK', 'Mask'), row('METHOD', 'Method', false)],
  } as Schemas['RunbookView'];
  const e = { id: 7, address: '10.4.1.5' } as Schemas['EndpointView'];
  const swap = { slip: { kind: 'SWAPPED', message: 'Two figures swapped.', position: 0, group: 1 } };
  const unread = {
    usable: false,
    value: null,
    findings: [{ code: 'EMPTY_GROUP', message: 'A group is empty.' }],
  };

  it.each([
    ['READ_BACK', { ADDRESS: 'a', MASK: 'b', METHOD: 'c' }, {}, undefined, ['ADDRESS', 'MASK']],
    ['READ_BACK', { ADDRESS: 'a', MASK: 'b' }, swap, 'Address: Two figures swapped.', ['ADDRESS']],
    ['READ_BACK', { ADDRESS: ' ', MASK: 'b' }, unread, 'Mask: A group is empty.', ['MASK']],
    ['ADDRESS_SHOWN', { ADDRESS: 'a' }, swap, 'Which address?: Two figures swapped.', ['ADDRESS']],
    ['CHOICE', { seen: 'a' }, swap, undefined, []],
  ])('%s with %o: %o', async (type, evidence, said, message, asked) => {
    vi.mocked(readHere).mockResolvedValue(reading(said));
    const problem = await slipped(gate(type), book, e, evidence as Record<string, string>);
    expect(problem?.message).toBe(message);
    expect(vi.mocked(readHere).mock.calls.map((c) => c[1].purpose)).toEqual(asked);
  });

  it('is judged later when the readers are not on this device', async () => {
    vi.mocked(readHere).mockRejectedValue(new TypeError('not kept'));
    expect(await slipped(gate('READ_BACK'), book, e, { ADDRESS: 'a' })).toBeNull();
  });
});
