import {
  clampChroma,
  formatHex,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeRgb,
  parse,
  useMode as provide,
} from 'culori/fn';

for (const mode of [modeRgb, modeHsl, modeHwb, modeLab, modeLch, modeOklab, modeOklch]) provide(mode);

/**
 * '#rrggbb' of a colour as CSS writes it (CSS Color Module Level 4), null for none: hexadecimal with or without #, a
 * name, which may be written apart ("light blue"), rgb(), hsl(), hwb(), lab(), lch(), oklab() or oklch(). What no
 * display shows is brought into sRGB with its hue kept; alpha is left out.
 */
export function hexOf(text: string): string | null {
  const plain = text.trim().toLowerCase();
  const written = plain.includes('(') ? plain : plain.replace(/\s+/g, '');
  const colour = parse(/^[0-9a-f]{6}$/.test(written) ? `#${written}` : written);
  if (!colour) return null;
  const shown = colour.mode === 'rgb' ? colour : clampChroma(colour, 'oklch');
  return formatHex({ ...shown, alpha: 1 })?.slice(0, 7) ?? null;
}
