import { copyCount, facesShown } from '../copies/copies';
import type { Evaluated, Params } from '../declare/params';
import { StepWaits } from '../steps/allowance';
import { stepKind } from '../steps/index';
import { readsNow } from '../declare/reads';
import { applyStep, StepProblem, type Detail, type StepContext } from '../steps/step';
import type { Mesh } from '../shape/mesh';
import type { RibbonDoc, StepDoc } from '../piece/piece';
import type { Clock, Loop } from '../time/loop';
import { splitTime } from '../time/phase';
import { isMoving } from '../time/value';
import { applyToCopies, asOne } from './apply';
import { assetOf } from './assets';
import { fingerprint } from '../maths/hash';
import type { MeshCache } from './mesh-cache';
import { standsStill } from './still';
import { reseeded } from './reseed';
import { evaluateValues } from '../time/values';

export const EMPTY_MESH: Mesh = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};

export interface Problem {
  readonly step: string;
  readonly message: string;
  /** It is expensive, and waits for consent. */
  readonly waits?: true;
}

/** Summary after a step that makes or changes copies. */
export interface CopiesNote {
  readonly step: string;
  readonly copies: number;
  /** Different shapes: sources at different times count separately. */
  readonly shapes: number;
  /** Faces drawn in all. */
  readonly faces: number;
}

export interface RibbonResult {
  readonly mesh: Mesh;
  /** Equal keys mean equal meshes, in every worker. */
  readonly key: string;
  readonly problems: readonly Problem[];
  readonly notes: readonly CopiesNote[];
}

/** State shared by the steps of one evaluation. */
interface Run {
  readonly ribbon: RibbonDoc;
  readonly loop: Loop;
  readonly detail: Detail;
  readonly cache: MeshCache;
  readonly asset: StepContext['asset'];
  /** Called before each step that is really evaluated. */
  readonly onStep?: (step: StepDoc) => void;
  /** Ribbons that steps name, by frame: several may name the same one. */
  readonly known: Map<RibbonDoc, Map<number, RibbonResult>>;
}

interface State {
  readonly mesh: Mesh;
  readonly key: string;
}

/** From this many copies on, rows of moving steps are evaluated together: their intermediate results are not cached. */
const MANY_COPIES = 20_000;

/**
 * Evaluates a ribbon at an unwrapped frame (any real number). Steps whose values and input have not changed come from
 * the cache; a step that reads the clock is keyed by the unwrapped frame, so that frame N is computed and never
 * borrowed from frame 0.
 */
export function evaluateRibbon(
  ribbon: RibbonDoc,
  loop: Loop,
  frame: number,
  detail: Detail,
  cache: MeshCache,
  asset: StepContext['asset'] = assetOf,
  onStep?: (step: StepDoc) => void,
): RibbonResult {
  return evaluate({ ribbon, loop, detail, cache, asset, onStep, known: new Map() }, frame);
}

/** Evaluates a ribbon that a step of another names. */
function evaluateOther(run: Run, ribbon: RibbonDoc, frame: number): RibbonResult {
  let byFrame = run.known.get(ribbon);
  if (!byFrame) run.known.set(ribbon, (byFrame = new Map()));
  let result = byFrame.get(frame);
  if (!result) {
    byFrame.set(frame, (result = evaluate({ ...run, ribbon }, frame)));
    // Steps may read a whole loop of them; what is worth keeping longer is in the cache.
    if (byFrame.size > 3) byFrame.delete(byFrame.keys().next().value!);
  }
  return result;
}

function evaluate(run: Run, frame: number): RibbonResult {
  const { ribbon } = run;
  const problems: Problem[] = [];
  const notes: CopiesNote[] = [];
  const { mesh, key } = through(run, ribbon.steps.length, frame, problems, notes);
  return { mesh, key, problems, notes };
}

/** The first `count` steps. */
function through(run: Run, count: number, frame: number, problems: Problem[] = [], notes: CopiesNote[] = []): State {
  let state: State = { mesh: EMPTY_MESH, key: 'empty' };
  for (let index = 0; index < count; index++) {
    const step = run.ribbon.steps[index];
    if (!step.on) continue;
    const kind = stepKind(step.kind);
    if ((kind.group === 'form') !== (index === 0)) {
      const message =
        index === 0
          ? `A ribbon begins with a form; put one before ${kind.title}.`
          : `${kind.title} is a form and can only begin a ribbon; it is passed over here.`;
      problems.push({ step: step.id, message });
      continue;
    }
    let done: readonly StepDoc[] = [step];
    try {
      const row = rowFrom(run, index, count, frame, state);
      const made = row.length > 1 ? together(run, row, frame, state) : null;
      if (made) {
        done = row.map((i) => run.ribbon.steps[i]);
        index = row[row.length - 1];
      }
      state = made ?? advance(run, step, index, frame, state);
    } catch (error) {
      if (!(error instanceof StepProblem)) throw error;
      problems.push({ step: step.id, message: error.message, ...(error instanceof StepWaits ? { waits: true } : {}) });
    }
    const { copies } = state.mesh;
    if (copies && kind.reads?.copies)
      for (const { id } of done)
        notes.push({
          step: id,
          copies: copyCount(copies),
          shapes: copies.sources.length,
          faces: facesShown(state.mesh),
        });
  }
  return state;
}

/**
 * Indices of consecutive steps that may be evaluated together: moving ones of a kind that supports it, on many copies.
 */
function rowFrom(run: Run, index: number, count: number, frame: number, state: State): number[] {
  const { steps } = run.ribbon;
  const { kind, together: can } = stepKind(steps[index].kind);
  const row = [index];
  if (
    !can ||
    !state.mesh.copies ||
    copyCount(state.mesh.copies) < MANY_COPIES ||
    standsStill(steps.slice(0, index + 1))
  )
    return row;
  const fits = (step: StepDoc) =>
    step.kind === kind &&
    can.can(evaluateValues(stepKind(kind).params, step.values, { frame, frames: run.loop.frames }));
  if (!fits(steps[index])) return row;
  for (let i = index + 1; i < count; i++) {
    if (!steps[i].on) continue;
    if (!fits(steps[i])) break;
    row.push(i);
  }
  return row;
}

/** Evaluates a row of steps at once; null if that is impossible. Its key equals that of one after the other. */
function together(run: Run, row: readonly number[], frame: number, before: State): State | null {
  const { steps } = run.ribbon;
  const kind = stepKind(steps[row[0]].kind);
  const asked = row.map((index) => ask(run, steps[index], index, frame));
  const { clock, given } = asked[0];
  const key = asked.reduce((from, { own }) => fingerprint(`${own}|${from}`), before.key);
  const hit = run.cache.get(key);
  if (hit) return { mesh: hit, key };
  const mesh = kind.together!.evaluate(
    asked.map((a) => a.values),
    before.mesh,
    { clock, detail: given },
  );
  if (mesh) run.cache.set(key, mesh);
  return mesh && { mesh, key };
}

/** The evaluation of one step at a moment, and what its result depends on besides its input. */
interface Asked {
  readonly values: Evaluated<Params>;
  readonly others: Readonly<Record<string, RibbonResult>>;
  /**
   * The chain up to this step, with everything its shape at any moment depends on; empty if it reads no other moment.
   */
  readonly definition: string;
  /** Moment and detail as given to the step. */
  readonly clock: Clock;
  readonly given: Detail;
  /** Text of everything the result depends on besides the input. */
  readonly own: string;
}

function ask(run: Run, step: StepDoc, index: number, frame: number): Asked {
  const { loop, detail, asset } = run;
  const kind = stepKind(step.kind);
  const values = reseeded(
    kind.params,
    evaluateValues(kind.params, step.values, { frame, frames: loop.frames }),
    step.chance,
  );
  const others: Record<string, RibbonResult> = {};
  for (const [name, other] of Object.entries(step.others ?? {})) others[name] = evaluateOther(run, other, frame);
  // What it reads at other moments depends on the whole chain before it, and on the moment unless that chain stands
  // still.
  const loops = readsNow(kind.reads, 'loop', values);
  const definition = loops ? definitionOf(run, index) : '';
  const moves = readsNow(kind.reads, 'clock', values) || (loops && !standsStill(run.ribbon.steps.slice(0, index + 1)));
  const clock: Clock = { frame: moves ? frame : 0, frames: loop.frames };
  const given: Detail = kind.reads?.detail ? detail : 'final';
  const beside = Object.entries(others)
    .map(([name, r]) => `${name}:${r.key}`)
    .join();
  // A file that has arrived makes another shape than a missing one.
  const files = Object.entries(kind.params)
    .filter(([, p]) => p.type === 'asset')
    .map(([name]) => (asset?.(values[name] as string) ? 1 : 0))
    .join();
  return {
    values,
    others,
    definition,
    clock,
    given,
    own: `${kind.kind}|${JSON.stringify(values)}|${Object.keys(others)
      .map((name) => step.others![name].id)
      .join()}|${given}|${clock.frame}/${clock.frames}|${definition}|${beside}|${files}|${step.copies ?? ''}`,
  };
}

/** Evaluates one more step. Throws StepProblem if it cannot work. */
function advance(run: Run, step: StepDoc, index: number, frame: number, before: State): State {
  const { loop, cache, asset } = run;
  const kind = stepKind(step.kind);
  const { values, others, definition, clock, given, own } = ask(run, step, index, frame);
  const key = fingerprint(`${own}|${before.key}`);
  const hit = cache.get(key);
  if (hit) return { mesh: hit, key };
  run.onStep?.(step);
  const context: StepContext = {
    clock,
    detail: given,
    asset,
    other: (name) =>
      others[name] && asOne(others[name].mesh, 'Use fewer copies in the ribbon it names, or simpler ones.'),
    ribbonOf: (name) => step.others?.[name]?.id,
    otherAt: (name, frames) => {
      if (!step.others?.[name]) return undefined;
      if (frames !== 0 && definition === '') throw undeclared(kind, 'a ribbon at another moment');
      return (frames === 0 ? others[name] : evaluateOther(run, step.others[name], clock.frame + frames)).mesh;
    },
    ...(definition === ''
      ? {}
      : {
          definition,
          moves: (names) => names.some((name) => [step.values[name]].flat().some(isMoving)),
          inputAt: (frames) => (frames === 0 ? before : through(run, index, clock.frame + frames)).mesh,
          valuesAt: (share, names) => {
            const params = Object.fromEntries(names.map((name) => [name, kind.params[name]]));
            return reseeded(
              params,
              evaluateValues(params, step.values, {
                frame: share * loop.frames,
                frames: loop.frames,
                loops: splitTime(clock).cycles,
              }),
              step.chance,
            );
          },
        }),
  };
  const each = (source: Mesh) => {
    const sourceKey = fingerprint(`${own}|each|${cache.keyOf(source)}`);
    const known = cache.get(sourceKey);
    if (known) return known;
    const made = applyStep(kind, values, source, context);
    cache.set(sourceKey, made);
    return made;
  };
  const mesh = applyToCopies(kind, values, before.mesh, context, step.copies, each);
  cache.set(key, mesh);
  // Sources that a step made itself are named after it, and so are equal in every worker.
  mesh.copies?.sources.forEach((source, i) => cache.name(source, `${key}/${i}`));
  return { mesh, key };
}

/** A step asked for what it does not declare to read: the key of its result would omit that. */
const undeclared = ({ kind }: { readonly kind: string }, what: string) =>
  new Error(`The step “${kind}” reads ${what}, and does not declare it; see core/declare/reads.ts.`);

const definitions = new WeakMap<RibbonDoc, Map<string, string>>();

/** The steps up to and including one, and which of their files exist, as text; cached per ribbon. */
function definitionOf({ ribbon, loop, detail, asset }: Run, index: number): string {
  let own = definitions.get(ribbon);
  if (!own) definitions.set(ribbon, (own = new Map()));
  const key = `${index}/${loop.frames}/${detail}`;
  let text = own.get(key);
  if (!text)
    own.set(key, (text = ribbonFingerprint({ ...ribbon, steps: ribbon.steps.slice(0, index + 1) }, loop, detail)));
  return `${text}${filesOf(ribbon)
    .map((file) => (asset?.(file) ? 1 : 0))
    .join('')}`;
}

const named = new WeakMap<RibbonDoc, readonly string[]>();

/** Fingerprints of the files that a ribbon's steps name, including those of ribbons they name. */
function filesOf(ribbon: RibbonDoc): readonly string[] {
  let files = named.get(ribbon);
  if (!files) {
    files = ribbon.steps.flatMap((s) => [
      ...Object.entries(stepKind(s.kind).params)
        .filter(([name, p]) => p.type === 'asset' && s.values[name])
        .map(([name]) => s.values[name] as string),
      ...Object.values(s.others ?? {}).flatMap(filesOf),
    ]);
    named.set(ribbon, files);
  }
  return files;
}

const prints = new WeakMap<RibbonDoc, Map<string, string>>();

/**
 * What a ribbon's shape depends on: equal texts give equal shapes at every frame. Ribbons that others name are shared,
 * so each is visited once.
 */
export function ribbonFingerprint(ribbon: RibbonDoc, loop: Loop, detail: Detail): string {
  let own = prints.get(ribbon);
  if (!own) prints.set(ribbon, (own = new Map()));
  const key = `${loop.frames}/${detail}`;
  let print = own.get(key);
  if (print === undefined) {
    const others = (s: StepDoc) =>
      s.others && Object.entries(s.others).map(([name, r]) => [name, r.id, ribbonFingerprint(r, loop, detail)]);
    const steps = ribbon.steps.map((s) => [s.id, s.kind, s.on, s.values, s.copies, s.chance, others(s)]);
    own.set(key, (print = fingerprint(JSON.stringify([steps, loop.frames, detail]))));
  }
  return print;
}
