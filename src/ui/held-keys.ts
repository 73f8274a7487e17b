/** What is typed while a panel is on its way: it belongs to the panel, not to whatever has the focus until the panel is there. */

const isField = (element: Element | null): element is HTMLElement =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;

/** Keys that mean something to a panel's field besides letters. */
const OTHERS = ['Backspace', 'Delete', 'Enter', 'ArrowUp', 'ArrowDown', 'Escape'];

/**
 * Holds the keys of the page back until the function that it gives is called. They then go to the field that has the focus; where no other field has
 * taken the focus meanwhile they go nowhere.
 */
export function holdKeys(): () => void {
  const before = document.activeElement;
  const held: string[] = [];
  const hear = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.length !== 1 && event.key !== 'Tab' && !OTHERS.includes(event.key)) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    held.push(event.key);
  };
  window.addEventListener('keydown', hear, { capture: true });
  return () => {
    window.removeEventListener('keydown', hear, { capture: true });
    for (const key of held) {
      const field = document.activeElement;
      if (field === before || !isField(field)) return;
      // The one way to type into a field that the browser's own undo and every listener know of.
      if (key.length === 1) document.execCommand('insertText', false, key);
      else if (key === 'Backspace') document.execCommand('delete');
      else field.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    }
  };
}
