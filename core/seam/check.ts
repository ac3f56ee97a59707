import type { Piece } from '../piece/piece';
import type { Detail } from '../steps/step';
import type { Closure } from './distance';
import { readable, type Finding } from './finding';
import { ribbonClosure, ribbonSteps, seamRatio } from './measure';
import { proveSeam, type Proof } from './proof';
import { symmetryRepairs } from './symmetry';

export interface RibbonReport {
  readonly id: string;
  readonly name: string;
  readonly closure: Closure;
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

/** What is known of a ribbon's shape across the seam. */
export type KnownClosure = Pick<RibbonReport, 'id' | 'closure'>;

/** The whole verdict: findings that the shapes themselves overrule are marked as closed to the eye. */
export interface Verdict {
  readonly closed: boolean;
  readonly findings: readonly Finding[];
  /** Findings that are gaps to the eye too. */
  readonly gaps: number;
  /** Ribbons that are another shape at f = N. */
  readonly open: readonly string[];
}

/**
 * Brings proof and measurement together. A value of a step that does not come back is no gap where
 * the shape of its ribbon is the same set of points all the same.
 */
export function judge(proof: Pick<Proof, 'findings'>, ribbons: readonly KnownClosure[]): Verdict {
  const closed = new Set(ribbons.filter((r) => r.closure.how !== 'open').map((r) => r.id));
  const findings = proof.findings.map((f) => (f.kind === 'gap' && f.owner.type === 'step' && closed.has(f.owner.ribbon) ? { ...f, closedToTheEye: true } : f));
  const gaps = findings.filter((f) => f.kind === 'gap' && !f.closedToTheEye).length;
  const open = ribbons.filter((r) => r.closure.how === 'open').map((r) => r.id);
  return { closed: gaps === 0 && open.length === 0, findings, gaps, open };
}

/**
 * Proof and measurement of a whole piece. With the step sizes it takes as long as evaluating every
 * frame once; without them only frames 0 and N are made, and `steps` are empty.
 */
export async function checkSeam(piece: Piece, detail: Detail = 'draft', withSteps = true): Promise<SeamReport> {
  const proof = proveSeam(piece);
  const ribbons: RibbonReport[] = [];
  for (const r of piece.ribbons) {
    const steps = withSteps ? ((await ribbonSteps(piece, r, detail)) ?? []) : [];
    ribbons.push({ id: r.id, name: r.name, closure: ribbonClosure(piece, r, detail), steps: [...steps], seamRatio: seamRatio(steps) });
  }
  const verdict = judge(proof, ribbons);
  const findings = verdict.findings.map((f) => (f.closedToTheEye ? f : { ...f, repairs: [...symmetryRepairs(piece, f, detail), ...f.repairs] }));
  return { name: piece.name, frames: piece.loop.frames, closed: verdict.closed, proof: { ...proof, findings }, ribbons };
}

const KIND_WORDS = { gap: '', speed: 'closes in place but not in speed', pause: 'pauses at the seam', lost: 'follows nothing' } as const;

/** One line for a terminal. */
export function summarise(report: SeamReport): string {
  const { proof, ribbons } = report;
  const said = (f: Finding) => ` ${f.place}, ${f.title}: ${f.words}`;
  const notes = proof.findings.filter((f) => f.kind !== 'gap');
  const noted = notes.map((f) => ` ${KIND_WORDS[f.kind]}:${said(f)}`).join('');
  if (report.closed) {
    const permuted = ribbons.filter((r) => r.closure.how === 'permuted').map((r) => r.name);
    const exact = permuted.length === 0 ? `frame ${report.frames} is frame 0 exactly.` : `frame ${report.frames} looks like frame 0, with the parts of ${permuted.join(', ')} in each other’s places.`;
    return `${report.name}: closed. ${proof.moving} moving ${proof.moving === 1 ? 'value' : 'values'}, ${exact}${noted && ` Note:${noted}`}`;
  }
  const gaps = proof.findings.filter((f) => f.kind === 'gap' && !f.closedToTheEye);
  const worst = ribbons.filter((r) => r.closure.how === 'open').sort((a, b) => b.closure.byPoint.largest - a.closure.byPoint.largest)[0];
  const shape = worst ? ` Largest distance ${readable(worst.closure.byPoint.largest)} m, at ${worst.name}.` : '';
  const count = Math.max(1, gaps.length);
  return `${report.name}: ${count} gap${count === 1 ? '' : 's'}.${shape}${gaps.map(said).join('')}${noted && ` Note:${noted}`}`;
}
