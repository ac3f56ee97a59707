/** The part of a keyboard event that matters; names are those of the standard “UI Events KeyboardEvent key Values”. */
export interface KeyPress {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}

const NAMED: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Delete: 'Delete',
  Backspace: 'Backspace',
  Home: 'Home',
  End: 'End',
  PageUp: 'Page up',
  PageDown: 'Page down',
};
for (let i = 1; i <= 12; i++) (NAMED as Record<string, string>)[`F${i}`] = `F${i}`;

/**
 * A key combination as text: "Ctrl Shift Z", "Space", "?". Command counts as Ctrl. Null for a modifier alone, and for
 * keys that belong to the page: Escape, Tab, Enter.
 */
export function chordOf({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyPress): string | null {
  const letter = key.length === 1 && key.toLowerCase() !== key.toUpperCase();
  const name = NAMED[key] ?? (letter ? key.toUpperCase() : key.length === 1 ? key : null);
  if (name === null) return null;
  const parts = [ctrlKey || metaKey ? 'Ctrl' : '', altKey ? 'Alt' : ''];
  // For other characters Shift is part of the character itself: ? and not Shift ß.
  if (shiftKey && (letter || NAMED[key])) parts.push('Shift');
  return [...parts, name].filter(Boolean).join(' ');
}

/** Keys that browsers reserve, or that every page needs. */
export const RESERVED: readonly string[] = [
  ...['N', 'T', 'W', 'R', 'C', 'X', 'V', 'A', 'F', 'P', 'L', 'Q'].map((k) => `Ctrl ${k}`),
  ...['N', 'T', 'W', 'R', 'I', 'J', 'C'].map((k) => `Ctrl Shift ${k}`),
  'F1',
  'F5',
  'F11',
  'F12',
];
