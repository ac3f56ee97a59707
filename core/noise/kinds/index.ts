import type { NoiseKind } from '../kind';
import { billowed } from './billowed';
import { blotches } from './blotches';
import { cellular } from './cellular';
import { cellularEdges } from './cellular-edges';
import { cellularSecond } from './cellular-second';
import { cellularSoft } from './cellular-soft';
import { flow } from './flow';
import { gradient } from './gradient';
import { marble } from './marble';
import { ridged } from './ridged';
import { simplex } from './simplex';
import { stepped } from './stepped';
import { turbulence } from './turbulence';
import { value } from './value';
import { water } from './water';
import { white } from './white';
import { wood } from './wood';

/** Every kind of noise, in the order the panel offers them. */
export const noiseKinds: readonly NoiseKind[] = [gradient, simplex, value, cellular, cellularSecond, cellularEdges, cellularSoft, stepped, ridged, billowed, turbulence, flow, blotches, water, marble, wood, white];

const byKind = new Map<string, NoiseKind>(noiseKinds.map((k) => [k.kind, k]));

export function noiseKind(kind: string): NoiseKind {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no noise called “${kind}”. Known: ${[...byKind.keys()].join(', ')}.`);
  return found;
}
