/** Shuts a menu made of details: when something in it was chosen, on Escape, and when the hand goes elsewhere. */
export function shut(menu: HTMLDetailsElement) {
  const close = () => menu.removeAttribute('open');
  const chosen = (e: Event) => (e.target as HTMLElement).closest('a, button') && close();
  const elsewhere = (e: Event) => !menu.contains(e.target as Node) && close();
  const escape = (e: KeyboardEvent) => {
    if (e.key !== 'Escape' || !menu.open) return;
    close();
    menu.querySelector('summary')?.focus();
  };
  menu.addEventListener('click', chosen);
  menu.addEventListener('keydown', escape);
  document.addEventListener('pointerdown', elsewhere);
  document.addEventListener('focusin', elsewhere);
  return () => {
    menu.removeEventListener('click', chosen);
    menu.removeEventListener('keydown', escape);
    document.removeEventListener('pointerdown', elsewhere);
    document.removeEventListener('focusin', elsewhere);
  };
}
