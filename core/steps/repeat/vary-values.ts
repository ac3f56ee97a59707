import type { NoiseValues } from '../../noise/noise-params';
import type { Region } from '../deform/region';
import type { Lag } from './lagging';
import type { What } from './vary-what';
import type { DealtBy } from './vary-weights';

/** The values of Vary that changes are made from. */
export type VaryValues = DealtBy &
  Lag &
  Region &
  Omit<NoiseValues, 'space'> & {
    readonly what: What;
    readonly own: boolean;
    readonly lateFrom: number;
    readonly lateTo: number;
    readonly shareSoft: number;
    readonly colourFrom: string;
    readonly colourTo: string;
  };

/** The two values of each kind of change, how many numbers they have, and the neutral value. */
export const BETWEEN: Partial<
  Record<What, { names: readonly [string, string] | readonly [string]; width: number; none: number }>
> = {
  shift: { names: ['shiftFrom', 'shiftTo'], width: 3, none: 0 },
  turn: { names: ['turnFrom', 'turnTo'], width: 3, none: 0 },
  size: { names: ['sizeFrom', 'sizeTo'], width: 1, none: 1 },
  stretch: { names: ['stretchFrom', 'stretchTo'], width: 3, none: 1 },
  roughness: { names: ['amountFrom', 'amountTo'], width: 1, none: 0 },
  metalness: { names: ['amountFrom', 'amountTo'], width: 1, none: 0 },
  shown: { names: ['share'], width: 1, none: 0 },
};
