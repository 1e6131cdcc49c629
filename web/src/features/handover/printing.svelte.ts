import { api, ok, type Schemas } from '../../api/client';
import { useChange } from '../../api/change.svelte';

/** Gives a file that was fetched to the browser, to be kept or printed. */
export function hand(file: Blob, name: string) {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

/** Prints labels: what is handed to the browser is on record as printed. */
export function printing(site: () => number) {
  const change = useChange(() => [['site', site()]]);
  const of = (body: Schemas['LabelRequest']) => ({
    params: { path: { siteId: site() } },
    body,
    parseAs: 'blob' as const,
  });
  return {
    get busy() {
      return change.busy;
    },
    get problem() {
      return change.problem;
    },
    pdf: (wanted: Schemas['LabelRequest']) =>
      change.run(async () =>
        hand(await ok<Blob>(api.POST('/api/sites/{siteId}/labels.pdf', of(wanted)) as never), 'labels.pdf'),
      ),
    svg: (wanted: Schemas['LabelRequest']) =>
      change.run(async () =>
        hand(await ok<Blob>(api.POST('/api/sites/{siteId}/labels.svg', of(wanted)) as never), 'labels.svg'),
      ),
  };
}
