import { describe, expect, it } from 'vitest';
import { shut } from './shut';

function menu() {
  document.body.innerHTML =
    '<details open><summary>Site</summary><a href="#x">One</a><p>Words</p></details><button>Elsewhere</button>';
  const details = document.querySelector('details') as HTMLDetailsElement;
  return { details, off: shut(details) };
}
const hit = (selector: string, event: Event) => document.querySelector(selector)?.dispatchEvent(event);

describe('a menu', () => {
  it.each([
    ['something in it was chosen', 'a', new MouseEvent('click', { bubbles: true }), false],
    ['its words were clicked', 'p', new MouseEvent('click', { bubbles: true }), true],
    ['the hand goes elsewhere', 'button', new Event('pointerdown', { bubbles: true }), false],
    ['the focus goes elsewhere', 'button', new FocusEvent('focusin', { bubbles: true }), false],
    ['the hand stays in it', 'p', new Event('pointerdown', { bubbles: true }), true],
    ['Escape is pressed', 'a', new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }), false],
    ['another key is pressed', 'a', new KeyboardEvent('keydown', { key: 'x', bubbles: true }), true],
  ])('when %s', (_, target, event, open) => {
    const { details, off } = menu();
    hit(target, event);
    expect(details.hasAttribute('open')).toBe(open);
    off();
  });

  it('is let alone when it has gone', () => {
    const { details, off } = menu();
    off();
    hit('button', new Event('pointerdown', { bubbles: true }));
    expect(details.hasAttribute('open')).toBe(true);
  });
});
