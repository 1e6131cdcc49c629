import { describe, expect, it } from 'vitest';
import { partAt, pathAt } from './kindEditor';

const FILE = `id: x
menu:
  - field: ADDRESS
    label: IP
service:
  protocol: LINE
steps:
- key: one
  title: One
  gate:
    type: CHOICE
    options:
      - value: a
        label: A
  wait:
    usual: 3
`.split('\n');

describe('where in the file of a kind one writes', () => {
  it.each([
    ['at the outside', 0, 0, '', 'version'],
    ['the first key of an item', 2, 3, 'menu', 'leaveAlone'],
    ['another key of an item', 3, 4, 'menu', 'leaveAlone'],
    ['one in', 5, 2, 'service', 'defaultPort'],
    ['an item as far out as its list', 7, 1, 'steps', 'caution'],
    ['another of that item', 8, 2, 'steps', 'caution'],
    ['two in', 10, 4, 'steps gate', 'ask'],
    ['a list within an item', 13, 8, 'steps gate options', 'remedy'],
    ['after a deeper part', 15, 4, 'steps wait', 'longest'],
  ])('%s', (_, line, indent, path, offered) => {
    expect(pathAt(FILE, line, indent).join(' ')).toBe(path);
    expect(Object.keys(partAt(path.split(' ').filter(Boolean))?.properties ?? {})).toContain(offered);
  });
});
