import type { NoiseKind } from '../kind';
import { cellular } from './cellular';
import { gradient } from './gradient';
import { ridged } from './ridged';

/** Every kind of noise, in the order the panel offers them. */
export const noiseKinds = [gradient, cellular, ridged] as const satisfies readonly NoiseKind[];

const byKind = new Map<string, NoiseKind>(noiseKinds.map((k) => [k.kind, k]));

export function noiseKind(kind: string): NoiseKind {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no noise called “${kind}”. Known: ${[...byKind.keys()].join(', ')}.`);
  return found;
}
