import { useEditor } from '../state/store';

/** What a value is typed or chosen in. */
const VALUES = '[role="spinbutton"], select, input, textarea';

/** Puts the keyboard on the first value of a step's card once the card is there. */
export function focusFirstValue(step: string): void {
  requestAnimationFrame(() => {
    const card = document.querySelector(`[data-step="${CSS.escape(step)}"]`);
    const value = [...(card?.querySelectorAll<HTMLElement>(VALUES) ?? [])].find((e) => e.offsetParent !== null);
    value?.focus({ preventScroll: true });
    value?.scrollIntoView({ block: 'nearest' });
  });
}

/** The same for the form of the chosen ribbon. */
export function focusForm(): void {
  const { piece, ribbonId } = useEditor.getState();
  const form = piece.ribbons.find((r) => r.id === ribbonId)?.steps[0];
  if (form) focusFirstValue(form.id);
}
