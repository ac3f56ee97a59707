import { clampPiece } from '../piece/clamp';
import type { Piece } from '../piece/piece';
import { gapsOf } from './gaps';
import { spread } from './spread';
import type { Variable } from './variables';

/** Order of a sheet: equal orders give equal pieces on every machine. */
export interface SheetOrder {
  readonly seed: number;
  /** How far values may go, 0…1. */
  readonly reach: number;
  /** Number of variations: earlier ones stay nearer to the original. */
  readonly count: number;
}

/** Share of the reach of the first variation. */
const NEAREST = 0.25;

/** Reach of variation `index`. */
export function reachOf({ reach, count }: SheetOrder, index: number): number {
  const along = count > 1 ? Math.min(1, index / (count - 1)) : 1;
  return reach * (NEAREST + (1 - NEAREST) * along);
}

/**
 * A variation of a piece: every variable at a value of its own, except those that would open a closed seam.
 *
 * @param index from 0; beyond `count` all have full reach
 */
export function variation(piece: Piece, variables: readonly Variable[], order: SheetOrder, index: number): Piece {
  const u = spread(order.seed);
  const reach = reachOf(order, index);
  // Three numbers each, as a colour needs; the first ones of all variables are the best distributed.
  const n = variables.length;
  return asClosed(piece, variables, (now, v, j) =>
    v.apply(now, [u(index, j), u(index, n + j), u(index, 2 * n + j)], reach),
  );
}

/** Two variables over their full reach, along the two axes of a sheet. */
export function alongAxes(
  piece: Piece,
  [across, down]: readonly [Variable, Variable | undefined],
  [x, y]: readonly [number, number],
  reach: number,
): Piece {
  const list = down && down.key !== across.key ? [across, down] : [across];
  return asClosed(piece, list, (now, v) => {
    const u = v === across ? x : y;
    return v.apply(now, [u, u, 0.5], reach);
  });
}

/** Applies changes one after the other, skipping those that open the seam further. */
function asClosed(
  piece: Piece,
  variables: readonly Variable[],
  change: (piece: Piece, variable: Variable, index: number) => Piece,
): Piece {
  const open = gapsOf(piece);
  const all = clampPiece(
    piece,
    variables.reduce((now, v, j) => change(now, v, j), piece),
  );
  if (within(gapsOf(all), open)) return all;
  let sound = piece;
  variables.forEach((v, j) => {
    const next = clampPiece(sound, change(sound, v, j));
    if (next !== sound && within(gapsOf(next), open)) sound = next;
  });
  return sound;
}

const within = (gaps: ReadonlySet<string>, known: ReadonlySet<string>) => [...gaps].every((g) => known.has(g));
