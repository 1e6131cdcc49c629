import type { Schemas } from '../api/client';

/** Says what was found on a label, and what of it nobody can place. */
export function saidOf(read: Schemas['LabelView']) {
  const others = read.macs.slice(1).map((m) => m.text);
  const found = [read.macs[0] && 'the MAC', read.serial && 'the serial', read.model && 'the model'].filter(
    Boolean,
  );
  return [
    found.length ? 'Found ' + found.join(', ') + '.' : '',
    others.length ? 'Another MAC on it: ' + others.join(', ') + '. Which one is plugged in?' : '',
    read.rest.length ? 'Nobody could place ' + read.rest.join(', ') + '.' : '',
  ]
    .filter(Boolean)
    .join(' ');
}
