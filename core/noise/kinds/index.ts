import { Registry } from '../../declare/registry';
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

/** Every kind of noise, in menu order. A new one is added here and nowhere else. */
export const noises = new Registry<NoiseKind>('noise', [
  gradient,
  simplex,
  value,
  cellular,
  cellularSecond,
  cellularEdges,
  cellularSoft,
  stepped,
  ridged,
  billowed,
  turbulence,
  flow,
  blotches,
  water,
  marble,
  wood,
  white,
]);

export const noiseKinds = noises.all;

/** The declaration of a kind; throws a RangeError that names an unknown one. */
export const noiseKind = (kind: string): NoiseKind => noises.get(kind);
