import type { NumberValue, StoredValue } from '../declare/params';
import { NO_PLACE, type Place } from '../time/formula/words';
import type { LayerDoc, MotionDoc } from '../time/motion';
import { usesPlace } from '../time/motions/formula';
import { randomSource } from '../time/random';
import { isMoving } from '../time/value';
import { addressKey, isColourPlace, valueAt, valuesOf, type Address, type ColourPlace, type NumberPlace } from './addresses';
import { stepKind } from '../steps/index';
import type { Piece, RibbonDoc, StepDoc, Values } from './piece';

type Found = NumberPlace | ColourPlace;

/**
 * A piece ready for evaluation: beside the address that a value follows stands what is followed,
 * and beside a formula its place. Everything after this is evaluated value by value, in any worker,
 * with nothing to look up. Ribbons that need none of it are the very same objects.
 *
 * What cannot be found, or would follow itself, stays without a source and stands at its
 * `otherwise`.
 */
export function linkPiece(piece: Piece): Piece {
  let linked = known.get(piece);
  if (!linked) {
    linked = link(piece);
    known.set(piece, linked);
    known.set(linked, linked);
  }
  return linked;
}

const known = new WeakMap<Piece, Piece>();

/** What stands at an address of a piece, ready for evaluation. */
export function linkedValue(piece: Piece, address: Address): StoredValue | undefined {
  return valueAt(linkPiece(piece), address);
}

function motionsWithin(value: unknown): MotionDoc[] {
  if (Array.isArray(value)) return value.flatMap(motionsWithin);
  if (!isMoving(value)) return [];
  return [value, ...(value.layers ?? []).flatMap((l) => motionsWithin(l.motion))];
}

function needsLink(values: Values): boolean {
  return Object.values(values).some((v) => motionsWithin(v).some((m) => m.motion === 'follow' || (m.motion === 'formula' && usesPlace(m.text as string))));
}

/** The addresses a value takes its motion from, in itself and in its layers. */
export function sourcesOf(value: unknown): string[] {
  return motionsWithin(value).filter((m) => m.motion === 'follow' && m.of !== '').map((m) => m.of as string);
}

/** The ribbons that values of a step name, by parameter. */
export function ribbonsNamed(step: StepDoc): [string, string][] {
  return Object.entries(stepKind(step.kind).params)
    .filter(([name, p]) => p.type === 'ribbon' && typeof step.values[name] === 'string' && step.values[name] !== '')
    .map(([name]) => [name, step.values[name] as string]);
}

/** Motions that may stand behind one value, those that it follows and those that they follow among them. */
export const MOST_FOLLOWED = 5000;

/** How many motions stand behind a value, by the key of its address; found once for each, however many follow it. */
export function growthOf(piece: Piece): (key: string) => number {
  let index: Map<string, Found> | null = null;
  const known = new Map<string, number>();
  const growth = (key: string): number => {
    const done = known.get(key);
    if (done !== undefined) return done;
    // What follows itself is cut where it does; meanwhile it counts as one.
    known.set(key, 1);
    const found = (index ??= new Map(valuesOf(piece).map((v) => [addressKey(v.address), v]))).get(key);
    const sum = found ? sourcesOf(found.value).reduce((n, source) => Math.min(1e9, n + growth(source)), Math.max(1, motionsWithin(found.value).length)) : 1;
    known.set(key, sum);
    return sum;
  };
  return growth;
}

function placeOf(piece: Piece, ribbon: RibbonDoc | undefined): Place {
  if (!ribbon) return NO_PLACE;
  const order = piece.ribbons.findIndex((r) => r.id === ribbon.id);
  return { order, count: piece.ribbons.length, seed: randomSource(order + 1)() };
}

function link(piece: Piece): Piece {
  const scenes = Object.values(piece.scene);
  const wants = piece.ribbons.map((r) => needsLink(r.finish) || r.steps.some((s) => needsLink(s.values) || ribbonsNamed(s).length > 0));
  if (!wants.some(Boolean) && !scenes.some(needsLink)) return piece;

  const growth = growthOf(piece);
  const resolved = new Map<string, NumberValue | string>();
  let circles = 0;
  let index: Map<string, Found> | null = null;
  const find = (key: string) => (index ??= new Map(valuesOf(piece).map((v) => [addressKey(v.address), v]))).get(key);
  /** What is followed, itself linked; undefined where it is gone or follows itself. */
  const resolve = (key: string, colour: boolean, trail: ReadonlySet<string>): NumberValue | string | undefined => {
    const found = find(key);
    if (trail.has(key)) circles++;
    if (!found || trail.has(key) || trail.size > 60 || isColourPlace(found) !== colour || growth(key) > MOST_FOLLOWED) return undefined;
    const known = resolved.get(key);
    if (known !== undefined) return known;
    const { owner } = found.address;
    const ribbon = owner.type === 'scene' ? undefined : piece.ribbons.find((r) => r.id === owner.ribbon);
    const cuts = circles;
    const value = linkedMotion(found.value, placeOf(piece, ribbon), colour, new Set([...trail, key]));
    // Where no circle was cut, whoever follows it gets the same.
    if (circles === cuts) resolved.set(key, value);
    return value;
  };
  const linkedMotion = <T extends NumberValue | string>(value: T, place: Place, colour: boolean, trail: ReadonlySet<string>): T => {
    if (!isMoving(value)) return value;
    let out: MotionDoc = value;
    if (value.motion === 'follow') out = { ...out, source: value.of === '' ? undefined : resolve(value.of as string, colour, trail) };
    if (value.motion === 'formula' && usesPlace(value.text as string)) out = { ...out, place };
    if (value.layers?.some((l) => motionsWithin(l.motion).length > 0))
      out = { ...out, layers: value.layers.map((l): LayerDoc => ({ ...l, motion: linkedMotion(l.motion, place, colour, trail) })) };
    return out as T;
  };
  const linkedValues = (values: Values, place: Place, owner: Address['owner']): Values => {
    if (!needsLink(values)) return values;
    return Object.fromEntries(
      Object.entries(values).map(([param, v]): [string, StoredValue] => {
        // A colour's motions are told by their kinds having no number to them: the place says which it is.
        if (Array.isArray(v)) return [param, v.map((x, axis) => linkedMotion(x as NumberValue, place, false, new Set([addressKey({ owner, param, axis: axis as 0 | 1 | 2 })]))) as unknown as StoredValue];
        const key = addressKey({ owner, param });
        const found = isMoving(v) ? find(key) : undefined;
        return [param, found ? linkedMotion(v as NumberValue, place, isColourPlace(found), new Set([key])) : v];
      }),
    );
  };
  const plain = new Map<RibbonDoc, Values[]>();
  /** Values of a ribbon, its finish first, linked once however often the ribbon is named. */
  const valuesOfRibbon = (r: RibbonDoc): Values[] => {
    let own = plain.get(r);
    if (!own) {
      const place = placeOf(piece, r);
      own = [linkedValues(r.finish, place, { type: 'finish', ribbon: r.id }), ...r.steps.map((s) => linkedValues(s.values, place, { type: 'step', ribbon: r.id, step: s.id }))];
      plain.set(r, own);
    }
    return own;
  };
  const byId = new Map(piece.ribbons.map((r) => [r.id, r]));
  /**
   * A ribbon with those it names, and those that they name. A ribbon cannot be made of itself: what
   * leads back to one on the way is left out. What has been gone through once is shared, so that
   * many ribbons that name each other take no longer than there are names.
   */
  const linkedRibbon = (r: RibbonDoc, trail: Set<string>, done: Map<string, RibbonDoc>): RibbonDoc => {
    const known = done.get(r.id);
    if (known) return known;
    if (!wants[piece.ribbons.indexOf(r)]) return r;
    trail.add(r.id);
    const [finish, ...values] = valuesOfRibbon(r);
    const steps = r.steps.map((s, i) => {
      const named = ribbonsNamed(s).flatMap(([name, id]) => {
        const other = trail.has(id) ? undefined : byId.get(id);
        return other ? [[name, linkedRibbon(other, trail, done)] as const] : [];
      });
      return named.length > 0 ? { ...s, values: values[i], others: Object.fromEntries(named) } : values[i] === s.values ? s : { ...s, values: values[i] };
    });
    trail.delete(r.id);
    const out = { ...r, finish, steps };
    done.set(r.id, out);
    return out;
  };
  return {
    ...piece,
    scene: Object.fromEntries(Object.entries(piece.scene).map(([part, values]) => [part, linkedValues(values, NO_PLACE, { type: 'scene', part } as Address['owner'])])) as Piece['scene'],
    ribbons: piece.ribbons.map((r) => linkedRibbon(r, new Set(), new Map())),
  };
}

/** The followers that lead from a value back to it, the value itself first; null where there is no circle. */
export function circleThrough(piece: Piece, start: string): Found[] | null {
  const index = new Map(valuesOf(piece).map((v) => [addressKey(v.address), v]));
  const seen = new Set<string>();
  const search = (key: string, trail: Found[]): Found[] | null => {
    const found = index.get(key);
    if (!found) return null;
    if (trail.length > 0 && key === start) return trail;
    if (seen.has(key)) return null;
    seen.add(key);
    for (const next of sourcesOf(found.value)) {
      const circle = search(next, [...trail, found]);
      if (circle) return circle;
    }
    return null;
  };
  return search(start, []);
}

/** "Twist angle → Place turn y → Twist angle": a circle in words. */
export function describeCircle(circle: readonly Found[]): string {
  return [...circle, circle[0]].map((f) => `${f.place}, ${f.title}`).join(' → ');
}
