import type { StoredValue, Unit } from '../declare/params';
import { setValue, type Address, type Owner } from '../piece/addresses';
import { lengthenLoop } from '../piece/lengthen';
import type { Piece } from '../piece/piece';
import { mapOwners } from '../piece/walk';
import type { MotionDoc } from '../time/motion';
import type { Rational } from '../maths/rational';

/**
 * 'gap': it is not where it began. 'turn': the shape is, but turns round. 'speed': it is where it began, but continues
 * at another speed. 'pause': it rests at the seam though it travels on. 'lost': it follows what is gone, or itself.
 */
export type FindingKind = 'gap' | 'turn' | 'speed' | 'pause' | 'lost';

/** What one click does. Plain data, so that it can be sent by a worker. */
export interface Repair {
  readonly words: string;
  readonly help?: string;
  readonly set?: readonly { readonly address: Address; readonly value: StoredValue }[];
  /** Identifiers of steps to switch off. */
  readonly off?: readonly string[];
  /** Factor on the length of the loop. */
  readonly lengthen?: number;
}

/** Something at the seam worth reporting. */
export interface Finding {
  readonly kind: FindingKind;
  /** Key of the value or step. */
  readonly key: string;
  readonly owner: Owner;
  /** Absent if a whole step does not close. */
  readonly address?: Address;
  readonly title: string;
  readonly place: string;
  readonly colour?: string;
  readonly unit: Unit;
  readonly turns: Rational;
  /** Whether the turns were proved from the settings, or measured. */
  readonly by: 'proof' | 'measure';
  /** Value at f = 0 and at f = N. */
  readonly from: number;
  readonly to: number;
  /** The gap in the unit of the value, the shorter way round for an angle. */
  readonly miss: number;
  /** Change per frame before the seam, after it, and on average. */
  readonly speedBefore: number;
  readonly speedAfter: number;
  readonly speedMean: number;
  readonly words: string;
  readonly repairs: readonly Repair[];
  /** The stored motion of a moving value. */
  readonly stored?: MotionDoc;
  /** The change of speed at the seam is marked as intended. */
  readonly meant?: boolean;
  /** The shapes may still show that it closes: nothing needs repair yet. */
  readonly pending?: boolean;
  /** The shape closes all the same, since it is symmetric. */
  readonly closedToTheEye?: boolean;
}

/** The piece after a repair. */
export function applyRepair(piece: Piece, repair: Repair): Piece {
  let out = piece;
  for (const { address, value } of repair.set ?? []) out = setValue(out, address, value);
  const { off } = repair;
  if (off)
    out = mapOwners(out, ({ owner, item }) =>
      owner.type === 'step' && off.includes(owner.item) && item.on ? { ...item, on: false } : item,
    );
  return repair.lengthen ? lengthenLoop(out, repair.lengthen) : out;
}

/** A length, angle or speed for reading: three significant digits. */
export function readable(x: number): string {
  if (x === 0) return '0';
  return `${Number(x.toPrecision(3))}`;
}
