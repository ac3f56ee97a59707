import {
  clampChroma,
  converter,
  fixupHueLonger,
  formatHex,
  interpolate,
  interpolatorLinear,
  modeHsl,
  modeLch,
  modeOklab,
  modeOklch,
  modeRgb,
  useMode as provide,
} from 'culori/fn';

provide(modeRgb);
provide(modeHsl);
provide(modeOklab);
provide(modeLch);
provide(modeOklch);

/** OKLCH (B. Ottosson, “A perceptual color space for image processing”, 2020), or the display's own red, green and blue. */
export type ColourSpace = 'oklch' | 'rgb';

const oklch = converter('oklch');
const hsl = converter('hsl');

/** '#rrggbb' with its hue rotated by degrees; lightness and chroma stay as far as the display allows. */
export function turnHue(hex: string, degrees: number, space: ColourSpace): string {
  if (space === 'rgb') {
    const c = hsl(hex)!;
    return formatHex({ ...c, h: ((c.h ?? 0) + degrees) % 360 })!;
  }
  const c = oklch(hex)!;
  return formatHex(clampChroma({ ...c, h: ((c.h ?? 0) + degrees) % 360 }, 'oklch'))!;
}

/** Interpolates between two colours, 0…1; in OKLCH the hue takes the shorter way. */
export function between(from: string, to: string, space: ColourSpace): (x: number) => string {
  const mix = interpolate([from, to], space);
  return exactAtEnds(
    from,
    to,
    space === 'rgb' ? (x) => formatHex(mix(x))! : (x) => formatHex(clampChroma(mix(x), 'oklch'))!,
  );
}

/** The same in OKLCH with the hue taking the longer way. */
export function betweenFar(from: string, to: string): (x: number) => string {
  const longer: object = { h: { use: interpolatorLinear, fixup: fixupHueLonger } };
  const mix = interpolate([from, to], 'oklch', longer);
  return exactAtEnds(from, to, (x) => formatHex(clampChroma(mix(x), 'oklch'))!);
}

/** The purest colours lie on the gamut boundary, where rounding alone would desaturate them. */
function exactAtEnds(from: string, to: string, mix: (x: number) => string): (x: number) => string {
  return (x) => (x <= 0 ? from.toLowerCase() : x >= 1 ? to.toLowerCase() : mix(x));
}

/** Interpolates between two colours, 0…1, straight through OKLab: a mixture of both without a third hue. */
export function blend(from: string, to: string): (x: number) => string {
  const mix = interpolate([from, to], 'oklab');
  return exactAtEnds(from, to, (x) => formatHex(clampChroma(mix(x), 'oklch'))!);
}

const oklab = converter('oklab');

/** Lightness and the two axes of hue of '#rrggbb' in OKLab. */
export function labOf(hex: string): [number, number, number] {
  const c = oklab(hex)!;
  return [c.l, c.a, c.b];
}

/** '#rrggbb' of an OKLab colour, mapped into the display's gamut. */
export function hexOfLab(l: number, a: number, b: number): string {
  return formatHex(clampChroma({ mode: 'oklab', l: Math.max(0, Math.min(1, l)), a, b }, 'oklch'))!;
}

const tables = new Map<string, Float32Array>();

/** 256 even steps of a blend, sRGB 0…1 in 3 numbers each. */
export function blendTable(from: string, to: string): Float32Array {
  const key = `${from}/${to}`;
  let table = tables.get(key);
  if (!table) {
    if (tables.size >= 600) tables.clear();
    const mix = blend(from, to);
    table = Float32Array.from(
      Array.from({ length: 256 }, (_, i) =>
        [1, 3, 5].map((k) => parseInt(mix(i / 255).slice(k, k + 2), 16) / 255),
      ).flat(),
    );
    tables.set(key, table);
  }
  return table;
}
