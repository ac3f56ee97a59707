import { isShown } from '../declare/shown';
import type { ColourParam, NumberParam, Param, StoredValue, VectorParam } from '../declare/params';
import { partsOf, presets } from '../finish/presets';
import { lightUp } from '../looks/light-up';
import { randomSource } from '../maths/random';
import { noiseParams } from '../noise/noise-params';
import { addressKey, ownerKey, setValue, valueAt, type Address } from '../piece/addresses';
import { newId, newStep, type Piece, type StepDoc } from '../piece/piece';
import { ownedAt, ownersOf, type Owned } from '../piece/walk';
import { lightSetUps } from '../scene/set-ups';
import { stepKind } from '../steps/index';
import type { MotionDoc } from '../time/motion';
import { motionKind } from '../time/motions/index';
import { isMoving } from '../time/value';
import { isFineness } from './fineness';
import { swings, variedColour, variedNumber, variedPhase, variedSwing } from './vary-value';

/** Groups of things that may vary, in the order offered. */
export const VARIABLE_GROUPS = {
  chance: 'Seeds',
  noise: 'Noise',
  form: 'Form',
  copies: 'Copies',
  movement: 'Movement',
  colour: 'Colour',
  finish: 'Finish',
  light: 'Light',
  camera: 'Camera',
  picture: 'Air and picture',
} as const;
export type VariableGroup = keyof typeof VARIABLE_GROUPS;

/** Something of a piece that may vary. */
export interface Variable {
  /** Identifies it within the piece. */
  readonly key: string;
  readonly group: VariableGroup;
  /** "Twist angle". */
  readonly title: string;
  /** Name of the ribbon, or of the place. */
  readonly place: string;
  readonly ribbon?: string;
  /** Its step, part or light. */
  readonly item?: string;
  /**
   * The piece with this one thing changed. A result outside a document's limits is not made.
   *
   * @param u selects the value: three numbers 0…1, of which most need the first alone
   * @param reach how far it may go, 0…1
   */
  apply(piece: Piece, u: readonly [number, number, number], reach: number): Piece;
}

/** Bodies, and repeats, that may replace each other. */
const BODIES = ['torus', 'sphere', 'geodesic', 'box', 'cylinder', 'cone', 'capsule', 'platonic', 'medal', 'cord'];
const ROWS = ['repeat-line', 'repeat-rings', 'repeat-grid'];
/** Wave shapes without jumps. */
const WAVES = ['sine', 'cosine', 'triangle', 'smoothstep'];

/** Everything of a piece that may vary, in the order of the screen. */
export function variablesOf(piece: Piece): Variable[] {
  const out: Variable[] = [];
  for (const ribbon of piece.ribbons.filter((r) => r.on)) {
    const [first] = ribbon.steps;
    if (first?.on && BODIES.includes(first.kind)) out.push(otherKind(ribbon.id, ribbon.name, first, BODIES, 'form'));
    for (const s of ribbon.steps)
      if (s.on && ROWS.includes(s.kind)) out.push(otherKind(ribbon.id, ribbon.name, s, ROWS, 'copies'));
    if (ribbon.finishes.length > 0) out.push(otherFinish(ribbon.id, ribbon.name));
  }
  if (piece.scene.lights.length > 0) out.push(otherLights);
  for (const owned of ownersOf(piece)) {
    if (!owned.item.on || owned.ribbon?.on === false || owned.finish?.on === false) continue;
    for (const [name, param] of Object.entries(owned.params)) {
      if (!isShown(owned.params, owned.item.values, name)) continue;
      const group = groupOf(owned, name, param);
      if (group) out.push(...ofParam(piece, owned, name, param, group));
    }
  }
  return out;
}

function groupOf({ owner, item, params, ribbon }: Owned, name: string, param: Param): VariableGroup | null {
  if (owner.type === 'render' || owner.type === 'output') return null;
  if (param.type === 'number' && param.seeds) return 'chance';
  if (name in noiseParams && 'noise' in params) return 'noise';
  if (param.type === 'colour') return 'colour';
  if (owner.type === 'part' || owner.type === 'pattern') return 'finish';
  if (owner.type === 'step') return ribbon && stepKind(item.kind).group === 'repeat' ? 'copies' : 'form';
  return 'light';
}

/** The scene list of an item tells its group. */
function sceneGroup(piece: Piece, id: string): VariableGroup | null {
  if (piece.scene.lights.some((i) => i.id === id)) return 'light';
  if (piece.scene.cameras.some((i) => i.id === id)) return 'camera';
  return 'picture';
}

function ofParam(piece: Piece, owned: Owned, name: string, param: Param, sort: VariableGroup): Variable[] {
  const { owner, item, title: of, place, ribbon } = owned;
  const group = sort === 'light' ? sceneGroup(piece, item.id) : sort;
  if (!group || isFineness(owned, name)) return [];
  const about = { place, ribbon: ribbon?.id, item: item.id };
  /** If another kind has replaced it, its values are its own. */
  const asItIs =
    (apply: Variable['apply']): Variable['apply'] =>
    (now, u, reach) =>
      ownedAt(now, owner)?.item.kind === item.kind ? apply(now, u, reach) : now;
  const titled = (title: string) => `${of} ${title.toLowerCase()}`;
  const one = (address: Address, title: string, p: NumberParam | ColourParam): Variable[] => {
    const stored = valueAt(piece, address);
    const key = addressKey(address);
    if (isMoving(stored)) return p.type === 'number' ? ofMotion(address, key, titled(title), p, stored, about) : [];
    // A count that does not close is left alone.
    if (p.type === 'number' && p.counts && !Number.isInteger(stored)) return [];
    const apply: Variable['apply'] = (now, u, reach) => {
      const value = valueAt(now, address);
      if (value === undefined || isMoving(value)) return now;
      const varied =
        p.type === 'colour' ? variedColour(value as string, u, reach) : variedNumber(value as number, p, u[0], reach);
      return setValue(now, address, varied);
    };
    return [{ key, group, title: titled(title), ...about, apply: asItIs(apply) }];
  };
  if (param.type === 'number' || param.type === 'colour') return one({ owner, param: name }, param.title, param);
  if (param.type === 'vector')
    return ([0, 1, 2] as const).flatMap((axis) =>
      one({ owner, param: name, axis }, `${param.title} ${'xyz'[axis]}`, axisOf(param, axis)),
    );
  if (param.type === 'choice') {
    const options = param.options.map((o) => o.value).filter((v) => !asksForMore(owned, name, v));
    if (options.length < 2) return [];
    const address = { owner, param: name };
    return [
      {
        key: addressKey(address),
        group,
        title: titled(param.title),
        ...about,
        apply: asItIs((now, [u], reach) => {
          const value = oneOf(options, u, reach);
          return value === null ? now : setValue(now, address, value);
        }),
      },
    ];
  }
  return [];
}

const axisOf = (param: VectorParam, axis: 0 | 1 | 2): NumberParam => ({
  ...param,
  type: 'number',
  default: param.default[axis],
});

/** Whether a choice would show a row that is still empty: a file, another ribbon, a formula. */
function asksForMore({ params, item }: Owned, name: string, value: string): boolean {
  const values = { ...item.values, [name]: value };
  return Object.entries(params).some(
    ([other, p]) =>
      ['asset', 'ribbon', 'source', 'formula', 'text'].includes(p.type) &&
      (item.values[other] ?? p.default) === '' &&
      isShown(params, values, other) &&
      !isShown(params, item.values, other),
  );
}

/** A random option, or null to keep the present one: more often the less the reach. */
function oneOf<T>(options: readonly T[], u: number, reach: number): T | null {
  const change = 0.35 + 0.5 * reach;
  return u >= change ? null : options[Math.min(options.length - 1, Math.floor((u / change) * options.length))];
}

function ofMotion(
  address: Address,
  key: string,
  title: string,
  param: NumberParam,
  motion: MotionDoc,
  about: Pick<Variable, 'place' | 'ribbon' | 'item'>,
): Variable[] {
  const out: Variable[] = [];
  const add = (part: string, words: string, change: (m: MotionDoc, u: number, reach: number) => MotionDoc) =>
    out.push({
      key: `${key}:${part}`,
      group: 'movement',
      title: `${title}: ${words}`,
      ...about,
      apply(now, [u], reach) {
        const value = valueAt(now, address);
        return isMoving(value) ? setValue(now, address, change(value, u, reach) as StoredValue) : now;
      },
    });
  if (swings(motion)) add('swing', 'swing', (m, u, reach) => variedSwing(m, param, u, reach));
  if ('phase' in motionKind(motion.motion).params) add('phase', 'phase', variedPhase);
  if (motion.motion === 'wave' && WAVES.includes((motion as { shape?: string }).shape ?? 'sine'))
    add('shape', 'wave', (m, u, reach) => {
      const shape = oneOf(WAVES, u, reach);
      return shape === null ? m : ({ ...m, shape } as MotionDoc);
    });
  return out;
}

/** Another kind of step in place of one, with its own defaults; the identifier stays. */
function otherKind(
  ribbon: string,
  place: string,
  step: StepDoc,
  kinds: readonly string[],
  group: 'form' | 'copies',
): Variable {
  const apply: Variable['apply'] = (piece, [u], reach) => {
    const kind = oneOf(kinds, u, reach);
    const change = (s: StepDoc): StepDoc => {
      if (s.id !== step.id || kind === null || s.kind === kind) return s;
      const fresh = newStep(kind, {}, s.id);
      // Values with the same name are kept: how many copies, how much later each is.
      const shared = Object.entries(s.values).filter(
        ([name]) => name in fresh.values && stepKind(kind).params[name].type === stepKind(s.kind).params[name]?.type,
      );
      return {
        ...s,
        kind,
        values: group === 'copies' ? { ...fresh.values, ...Object.fromEntries(shared) } : fresh.values,
      };
    };
    return {
      ...piece,
      ribbons: piece.ribbons.map((r) => (r.id === ribbon ? { ...r, steps: r.steps.map(change) } : r)),
    };
  };
  const title = group === 'form' ? 'Kind of form' : 'Kind of repeat';
  return {
    key: `${ownerKey({ type: 'step', ribbon, item: step.id })}/kind`,
    group,
    title,
    place,
    ribbon,
    item: step.id,
    apply,
  };
}

/** Another preset finish. */
function otherFinish(ribbon: string, place: string): Variable {
  return {
    key: `${ribbon}/finish`,
    group: 'finish',
    title: 'Kind of finish',
    place,
    ribbon,
    apply(piece, [u], reach) {
      const preset = oneOf(presets, u, reach);
      if (!preset) return piece;
      // Deterministic identifiers, so that the same seed makes the same piece.
      const random = randomSource(presets.indexOf(preset) + 1);
      const parts = partsOf(preset).map((p) => ({ ...p, id: `${ribbon}-${newId(random)}` }));
      return {
        ...piece,
        ribbons: piece.ribbons.map((r) =>
          r.id === ribbon ? { ...r, finishes: r.finishes.map((f, i) => (i === 0 ? { ...f, parts } : f)) } : r,
        ),
      };
    },
  };
}

const otherLights: Variable = {
  key: 'scene/lights',
  group: 'light',
  title: 'Set-up of lights',
  place: 'Scene',
  apply(piece, [u], reach) {
    const setUp = oneOf(lightSetUps, u, reach);
    if (!setUp) return piece;
    const random = randomSource(lightSetUps.indexOf(setUp) + 1);
    const lit = lightUp(piece, setUp);
    const lights = lit.scene.lights.map((l) => ({ ...l, id: `light-${newId(random)}` }));
    return { ...lit, scene: { ...lit.scene, lights } };
  },
};
