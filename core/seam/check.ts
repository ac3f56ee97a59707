import type { Piece } from '../piece/piece';
import { selfMovingOf } from '../piece/self-moving';
import type { Detail } from '../steps/step';
import { dependencesOf, openCauses } from './causes';
import type { Closure } from './distance';
import { readable, type Finding, type Repair } from './finding';
import { ribbonClosure, ribbonSteps, seamRatio, turningCauses } from './measure';
import { proveSeam, type Proof } from './proof';
import { symmetryRepairs } from './symmetry';

export interface RibbonReport {
  readonly id: string;
  readonly name: string;
  readonly closure: Closure;
  /** If the shape meets itself and turns round: keys of the findings that cause it. */
  readonly causes?: readonly string[];
  /** If the shape is open though no value says so: findings from holding one thing after the other still. */
  readonly openBy?: readonly Finding[];
  /** Step sizes in metres, see ribbonSteps. */
  readonly steps: readonly number[];
  readonly seamRatio: number;
}

export interface SeamReport {
  readonly name: string;
  readonly frames: number;
  readonly closed: boolean;
  readonly proof: Proof;
  /** Number of things that move without a motion: counted turns, rates, streams and the like. */
  readonly selfMoving: number;
  readonly ribbons: readonly RibbonReport[];
}

/** What is known of a ribbon's shape across the seam. */
export type KnownClosure = Pick<RibbonReport, 'id' | 'name' | 'closure' | 'causes' | 'openBy'>;

/** The verdict: findings overruled by the shapes are marked as closed to the eye. */
export interface Verdict {
  readonly closed: boolean;
  readonly findings: readonly Finding[];
  /** Findings that are visible gaps. */
  readonly gaps: number;
  /** Findings of shapes that meet themselves and turn round. */
  readonly turns: number;
  /** Ribbons whose shape differs at f = N. */
  readonly open: readonly string[];
}

/** Measures a ribbon's shapes; `onward` is asked if a value does not close though the shape may. */
export function measureClosure(
  piece: Piece,
  ribbon: Piece['ribbons'][number],
  proof: Pick<Proof, 'findings'>,
  detail: Detail,
): KnownClosure {
  const gaps = proof.findings.filter((f) => f.kind === 'gap');
  const closure = ribbonClosure(piece, ribbon, detail, gaps.length > 0);
  const known = { id: ribbon.id, name: ribbon.name, closure };
  if (closure.goesOn !== false) return known;
  return {
    ...known,
    causes: turningCauses(
      piece,
      ribbon,
      gaps.filter((f) => f.owner.type === 'step' && f.owner.ribbon === ribbon.id),
      detail,
    ),
  };
}

/**
 * Looks for causes of open shapes whose values have no visible gap.
 *
 * @param ribbons what is known of all of them
 * @param goOn asked often, with the ribbon's name; false ends the work with null
 */
export async function withCauses<R extends KnownClosure>(
  piece: Piece,
  proof: Pick<Proof, 'findings'>,
  ribbons: readonly R[],
  detail: Detail,
  goOn: (name: string) => Promise<boolean> | boolean = () => true,
): Promise<R[] | null> {
  const gaps = judge(proof, ribbons).findings.filter((f) => f.kind === 'gap' && !f.closedToTheEye);
  const out: R[] = [];
  for (const r of ribbons) {
    const of = r.closure.how === 'open' && dependencesOf(piece, r.id);
    // A value of the scene or of a finish may be followed too.
    if (!of || gaps.some((g) => of.has('ribbon' in g.owner ? g.owner.ribbon : g.owner.type))) {
      out.push(r);
      continue;
    }
    const ribbon = piece.ribbons.find((x) => x.id === r.id)!;
    const openBy = await openCauses(piece, ribbon, detail, () => goOn(r.name));
    if (!openBy) return null;
    out.push({ ...r, openBy });
  }
  return out;
}

/**
 * Combines proof and measurement. A step's value that does not return is no gap if its ribbon's shape is the same set
 * of points and continues across the seam; if it turns round there, that is a finding of its own.
 *
 * @param measured false while shapes are being measured: gaps that they may overrule are pending
 */
export function judge(proof: Pick<Proof, 'findings'>, ribbons: readonly KnownClosure[], measured = true): Verdict {
  const closures = new Map(ribbons.filter((r) => r.closure.how !== 'open').map((r) => [r.id, r]));
  const findings = proof.findings.flatMap((f): Finding[] => {
    const known = f.kind === 'gap' && f.owner.type === 'step' ? closures.get(f.owner.ribbon) : undefined;
    if (!known) return [!measured && f.kind === 'gap' && f.owner.type === 'step' ? { ...f, pending: true } : f];
    if (!known.causes?.includes(f.key)) return [{ ...f, closedToTheEye: true }];
    return f.meant ? [] : [turning(f)];
  });
  // One cause may open several shapes.
  const told = new Set(findings.map((f) => f.key));
  for (const f of ribbons.flatMap((r) => r.openBy ?? [])) {
    if (!told.has(f.key)) findings.push(f);
    told.add(f.key);
  }
  for (const r of closures.values())
    if (r.closure.goesOn === false && r.causes?.length === 0) findings.push(turningShape(r));
  const count = (kind: Finding['kind']) =>
    findings.filter((f) => f.kind === kind && !f.closedToTheEye && !f.pending).length;
  const [gaps, turns] = [count('gap'), count('turn')];
  const open = ribbons.filter((r) => r.closure.how === 'open').map((r) => r.id);
  return { closed: gaps === 0 && turns === 0 && open.length === 0, findings, gaps, turns, open };
}

/** A value's gap whose shape closes and turns round. */
function turning(f: Finding): Finding {
  const unit = f.unit ? ` ${f.unit}` : '';
  const speeds = f.address
    ? `: it arrives at ${readable(f.speedBefore)}${unit} a frame and leaves at ${readable(f.speedAfter)}`
    : '';
  const { address } = f;
  const keep: Repair[] =
    address && f.stored
      ? [{ words: 'Keep the turn', set: [{ address, value: { ...f.stored, seamMeant: true } }] }]
      : [];
  return { ...f, kind: 'turn', words: `Closed, but turns round here${speeds}.`, repairs: [...f.repairs, ...keep] };
}

/** A shape that turns round because of other ribbons. */
function turningShape({ id, name }: KnownClosure): Finding {
  const words = 'Closed, but turns round here: what its values or its steps take from other ribbons does not close.';
  const owner = { type: 'part', ribbon: id, item: '' } as const;
  const none = { speedBefore: 0, speedAfter: 0, speedMean: 0, from: 0, to: 0, miss: 0 };
  return {
    ...none,
    kind: 'turn',
    key: `${id}/shape`,
    owner,
    title: 'Shape',
    place: name,
    unit: '',
    turns: { num: 1, den: 1 },
    by: 'measure',
    words,
    repairs: [],
  };
}

/**
 * Proof and measurement of a whole piece. With step sizes it takes as long as evaluating every frame once; without them
 * only frames at the seam are made, and `steps` are empty.
 */
export async function checkSeam(piece: Piece, detail: Detail = 'draft', withSteps = true): Promise<SeamReport> {
  const proof = proveSeam(piece);
  const measured: RibbonReport[] = [];
  for (const r of piece.ribbons) {
    const steps = withSteps ? ((await ribbonSteps(piece, r, detail)) ?? []) : [];
    measured.push({ ...measureClosure(piece, r, proof, detail), steps: [...steps], seamRatio: seamRatio(steps) });
  }
  const ribbons = (await withCauses(piece, proof, measured, detail)) ?? measured;
  const verdict = judge(proof, ribbons);
  const findings = verdict.findings.map((f) =>
    f.closedToTheEye ? f : { ...f, repairs: [...symmetryRepairs(piece, f, detail), ...f.repairs] },
  );
  return {
    name: piece.name,
    frames: piece.loop.frames,
    closed: verdict.closed,
    proof: { ...proof, findings },
    selfMoving: selfMovingOf(piece).length,
    ribbons,
  };
}

const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** What moves, in words. */
function movement({ proof, selfMoving }: SeamReport): string {
  if (proof.moving === 0 && selfMoving === 0) return 'Nothing moves';
  const itself = counted(selfMoving, 'thing moves by itself', 'things move by themselves');
  if (proof.moving === 0) return itself;
  const values = counted(proof.moving, 'moving value', 'moving values');
  return selfMoving === 0 ? values : `${values}, ${itself}`;
}

const KIND_WORDS = {
  gap: '',
  turn: '',
  speed: 'closes in place but not in speed',
  pause: 'pauses at the seam',
  lost: 'follows nothing',
} as const;

/** One line for a terminal. */
export function summarise(report: SeamReport): string {
  const { proof, ribbons } = report;
  const said = (f: Finding) => ` ${f.place}, ${f.title}: ${f.words}`;
  const notes = proof.findings.filter((f) => f.kind !== 'gap' && f.kind !== 'turn');
  const noted = notes.map((f) => ` ${KIND_WORDS[f.kind]}:${said(f)}`).join('');
  if (report.closed) {
    const permuted = ribbons.filter((r) => r.closure.how === 'permuted').map((r) => r.name);
    const exact =
      permuted.length === 0
        ? `frame ${report.frames} is frame 0 exactly.`
        : `frame ${report.frames} looks like frame 0, with the parts of ${permuted.join(', ')} in each other’s places.`;
    return `${report.name}: closed. ${movement(report)}, ${exact}${noted && ` Note:${noted}`}`;
  }
  const turns = proof.findings.filter((f) => f.kind === 'turn');
  const turned = turns.length > 0 ? ` Turns round at the seam:${turns.map(said).join('')}` : '';
  const gaps = proof.findings.filter((f) => f.kind === 'gap' && !f.closedToTheEye);
  if (gaps.length === 0 && !ribbons.some((r) => r.closure.how === 'open'))
    return `${report.name}: closed in place, but not in movement.${turned}${noted && ` Note:${noted}`}`;
  const worst = ribbons
    .filter((r) => r.closure.how === 'open')
    .sort((a, b) => b.closure.byPoint.largest - a.closure.byPoint.largest)[0];
  const shape = worst ? ` Largest distance ${readable(worst.closure.byPoint.largest)} m, at ${worst.name}.` : '';
  const count = Math.max(1, gaps.length);
  return `${report.name}: ${count} gap${count === 1 ? '' : 's'}.${shape}${gaps.map(said).join('')}${turned}${noted && ` Note:${noted}`}`;
}
