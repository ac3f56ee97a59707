/** Parameters of a plane outline about a centre. */
export interface Outline {
  readonly outline: string;
  readonly points: number;
  readonly inner: number;
  readonly exponent: number;
  readonly rounding: number;
}

/** Radius of an outline at a fraction 0…1 of the way round, for an outer radius of 1. */
export function outlineRadius(v: Outline, share: number): number {
  const inner = v.inner / 100;
  const part = share * v.points - Math.floor(share * v.points);
  const step = Math.PI / v.points;
  switch (v.outline) {
    case 'circle':
      return 1;
    case 'polygon': {
      // A side seen from the centre: cos(π/n) / cos(angle from its middle).
      const a = (part - 0.5) * 2 * step;
      const straight = Math.cos(step) / Math.cos(a);
      return straight + (v.rounding / 100) * (1 - straight) * 0.9;
    }
    case 'star': {
      // From a tip at part 0 to a notch at ½ and on: the straight line between them, in polar form.
      const a = (part < 0.5 ? part : 1 - part) * 2 * step;
      const straight = (inner * Math.sin(step)) / (Math.sin(a) + inner * Math.sin(step - a));
      const round = 0.5 * (1 + inner) + 0.5 * (1 - inner) * Math.cos(2 * Math.PI * part);
      return straight + (v.rounding / 100) * (round - straight);
    }
    case 'rose':
      return inner + (1 - inner) * (0.5 + 0.5 * Math.cos(2 * Math.PI * part));
    default: {
      // |x|ⁿ + |y|ⁿ = 1 (G. Lamé).
      const a = 2 * Math.PI * share;
      return (Math.abs(Math.cos(a)) ** v.exponent + Math.abs(Math.sin(a)) ** v.exponent) ** (-1 / v.exponent);
    }
  }
}

/** Points round an outline of radius 1, counter-clockwise from (1, 0). */
export function outlinePoints(v: Outline, count: number): [number, number][] {
  return Array.from({ length: count }, (_, i) => {
    const r = outlineRadius(v, i / count);
    const a = (2 * Math.PI * i) / count;
    return [r * Math.cos(a), r * Math.sin(a)];
  });
}

/** Number of points so that one stands on each tip, notch or corner. */
export function outlineCount(v: Outline, along: number): number {
  if (v.outline === 'circle') return 4 * along;
  const parts = v.outline === 'superellipse' ? 4 : v.points;
  return parts * (v.outline === 'polygon' ? along : 2 * Math.ceil(along / 2));
}
