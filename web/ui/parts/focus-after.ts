/**
 * Where the keyboard goes when a popover has closed: to the button that opened it (null, the
 * library's own choice), but never away from what took the focus in the meantime. The library
 * gives it back a frame later, which on a busy machine is after the user's next key.
 */
export function focusAfterClosing(): HTMLElement | null {
  const active = document.activeElement;
  const elsewhere =
    active instanceof HTMLElement &&
    active !== document.body &&
    !active.closest('[data-scope="popover"][data-part="content"]');
  return elsewhere ? active : null;
}
