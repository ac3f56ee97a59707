import type { StoredValue, Unit } from '../declare/params';
import { setValue, type Address, type Owner } from '../piece/addresses';
import { lengthenLoop } from '../piece/lengthen';
import type { Piece } from '../piece/piece';
import { mapOwners } from '../piece/walk';
import type { MotionDoc } from '../time/motion';
import type { Rational } from '../maths/rational';

/**
 * 'gap': it is not where it began. 'turn': the shape is, but turns round there. 'speed': it is where
 * it began, but goes on at another speed. 'pause': it comes to rest at the seam though it moves on.
 * 'lost': it follows what is gone, or itself.
 */
export type FindingKind = 'gap' | 'turn' | 'speed' | 'pause' | 'lost';

/** What one click does. Plain data, so that it can cross from a worker. */
export interface Repair {
  readonly words: string;
  readonly help?: string;
  readonly set?: readonly { readonly address: Address; readonly value: StoredValue }[];
  /** Steps that are switched off, by their identifiers. */
  readonly off?: readonly string[];
  /** Make the loop so many times as long. */
  readonly lengthen?: number;
}

/** Something at the seam that is worth a word. */
export interface Finding {
  readonly kind: FindingKind;
  /** Text that names the value or step. */
  readonly key: string;
  readonly owner: Owner;
  /** Absent where it is a whole step that does not close. */
  readonly address?: Address;
  readonly title: string;
  readonly place: string;
  readonly colour?: string;
  readonly unit: Unit;
  readonly turns: Rational;
  /** Whether the turns follow from the settings, or were found by trying. */
  readonly by: 'proof' | 'measure';
  /** Value at f = 0 and at f = N. */
  readonly from: number;
  readonly to: number;
  /** The gap in the unit of the value, the shorter way round for an angle. */
  readonly miss: number;
  /** Change per frame with which it arrives at the seam, leaves it, and goes on average. */
  readonly speedBefore: number;
  readonly speedAfter: number;
  readonly speedMean: number;
  readonly words: string;
  readonly repairs: readonly Repair[];
  /** The motion as it stands in the piece, where a value moves. */
  readonly stored?: MotionDoc;
  /** True where the maker has said that a change of speed at the seam is wanted. */
  readonly meant?: boolean;
  /** True while the shapes may still show that it closes all the same: nothing is to be mended yet. */
  readonly pending?: boolean;
  /** True where the shape is seen to close all the same, since it looks the same turned or moved so. */
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
