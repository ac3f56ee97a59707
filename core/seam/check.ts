import type { Piece } from '../piece/piece';
import type { Detail } from '../steps/step';
import { formatRational } from '../time/rational';
import type { Distance } from './distance';
import { ribbonGap, ribbonSteps, seamRatio } from './measure';
import { proveSeam, type Gap, type Proof } from './proof';

export interface RibbonReport {
  readonly id: string;
  readonly name: string;
  readonly gap: Distance;
  /** Step sizes in metres, see ribbonSteps. */
  readonly steps: readonly number[];
  readonly seamRatio: number;
}

export interface SeamReport {
  readonly name: string;
  readonly frames: number;
  readonly closed: boolean;
  readonly proof: Proof;
  readonly ribbons: readonly RibbonReport[];
}

/** Proof and measurement of a whole piece; takes as long as evaluating every frame once. */
export async function checkSeam(piece: Piece, detail: Detail = 'draft'): Promise<SeamReport> {
  const proof = proveSeam(piece);
  const ribbons: RibbonReport[] = [];
  for (const r of piece.ribbons) {
    const steps = (await ribbonSteps(piece, r, detail)) ?? [];
    ribbons.push({ id: r.id, name: r.name, gap: ribbonGap(piece, r, detail), steps: [...steps], seamRatio: seamRatio(steps) });
  }
  const closed = proof.closed && ribbons.every((r) => r.gap.largest === 0);
  return { name: piece.name, frames: piece.loop.frames, closed, proof, ribbons };
}

/** A length or angle for reading: three significant digits. */
export function readable(x: number): string {
  if (x === 0) return '0';
  return `${Number(x.toPrecision(3))}`;
}

/** A gap in plain words. */
export function describeGap(gap: Gap): string {
  const turns = formatRational(gap.turns);
  const unit = gap.unit ? ` ${gap.unit}` : '';
  const miss = Math.abs(gap.to - gap.from);
  const start = `Turns ${turns.includes('/') ? Number((gap.turns.num / gap.turns.den).toFixed(3)) : turns} times; a loop needs whole turns.`;
  // 1e-9 of the values themselves is far below anything the eye or a file can hold.
  if (miss <= 1e-9 * Math.max(1, Math.abs(gap.from)))
    return `${start} It meets itself in place, but arrives at ${readable(gap.speedTo)}${unit} a frame and leaves at ${readable(gap.speedFrom)}.`;
  return `${start} It starts at ${readable(gap.from)}${unit} and arrives at ${readable(gap.to)}${unit}.`;
}

/** One line for a terminal. */
export function summarise(report: SeamReport): string {
  const { proof } = report;
  if (report.closed) return `${report.name}: closed. ${proof.moving} moving values, frame ${report.frames} is frame 0 exactly.`;
  const worst = report.ribbons.reduce((a, r) => (r.gap.largest > a.gap.largest ? r : a), { name: '', gap: { largest: 0 } } as RibbonReport);
  const shape = worst.gap.largest > 0 ? ` Largest distance ${readable(worst.gap.largest)} m, at ${worst.name}.` : '';
  const values = proof.gaps.map((g) => ` ${g.place}, ${g.title}: ${describeGap(g)}`).join('');
  const count = Math.max(1, proof.gaps.length);
  return `${report.name}: ${count} gap${count === 1 ? '' : 's'}.${shape}${values}`;
}
