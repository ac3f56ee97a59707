/**
 * A ribbon's colour as a line on the panels. People choose any colour; a little of the ink is mixed in
 * so that a dark one is seen at dusk and a pale one on paper (how much is set with the theme).
 */
export function shownColour(colour: string): string {
  return `color-mix(in oklab, ${colour}, var(--chakra-colors-ink) var(--ink-share))`;
}
