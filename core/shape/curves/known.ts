import { splineThrough } from '../closed-path';

const TURN = 2 * Math.PI;

/** Parameters of the classic curves; see the step Cord. */
export interface KnownCurve {
  readonly curve: string;
  readonly size: number;
  readonly depth: number;
  readonly p: number;
  readonly q: number;
  readonly frequencies: readonly [number, number, number];
  readonly phases: readonly [number, number, number];
  readonly points: readonly (readonly [number, number, number])[];
}

/** A closed curve, a point for u with period 1. */
export function closedCurve(v: KnownCurve): (u: number) => [number, number, number] {
  const { size: r, depth: d } = v;
  switch (v.curve) {
    case 'knot':
      // On a torus about y: p times round the axis while q times round the tube.
      return (u) => {
        const [a, b] = [TURN * v.p * u, TURN * v.q * u];
        const w = r + d * Math.cos(b);
        return [w * Math.cos(a), d * Math.sin(b), w * Math.sin(a)];
      };
    case 'coil':
      return (u) => {
        const [a, b] = [TURN * u, TURN * v.q * u];
        const w = r + d * Math.cos(b);
        return [w * Math.cos(a), d * Math.sin(b), w * Math.sin(a)];
      };
    case 'eight':
      // Gerono's lemniscate, lifted so that it does not intersect itself.
      return (u) => [r * Math.sin(TURN * u), d * Math.cos(TURN * u), r * Math.sin(TURN * u) * Math.cos(TURN * u)];
    case 'rose':
      return (u) => {
        const a = TURN * u;
        const w = r * (0.6 + 0.4 * Math.cos(v.q * a));
        return [w * Math.cos(a), d * Math.sin(v.q * a), w * Math.sin(a)];
      };
    case 'lissajous':
      return (u) =>
        [0, 1, 2].map((k) => r * Math.sin(TURN * v.frequencies[k] * u + (v.phases[k] * Math.PI) / 180)) as [
          number,
          number,
          number,
        ];
    default:
      return splineThrough(v.points);
  }
}
