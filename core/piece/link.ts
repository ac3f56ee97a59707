import { vec3 } from '../maths/vec3';
import type { NumberValue, StoredValue } from '../declare/params';
import { NO_PLACE, type Place } from '../time/formula/words';
import type { LayerDoc, MotionDoc } from '../time/motion';
import { usesPlace } from '../time/motions/formula';
import { randomSource } from '../maths/random';
import { isMoving } from '../time/value';
import { stepKind } from '../steps/index';
import {
  addressKey,
  isColourPlace,
  valueAt,
  valuesOf,
  type Address,
  type ColourPlace,
  type NumberPlace,
} from './addresses';
import type { Item, Piece, RibbonDoc, StepDoc, Values } from './piece';
import { mapOwners, ownersOf, type Owned, type Owner } from './walk';

type Found = NumberPlace | ColourPlace;

/**
 * A piece ready for evaluation: next to an address that is followed stands its value, and next to a formula the copy's
 * place. Afterwards every value is evaluated on its own, in any worker. Ribbons that need no linking are the very same
 * objects.
 *
 * A link that cannot be found, or would follow itself, has no source and stands at its `otherwise`.
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

/** The linked value at an address. */
export function linkedValue(piece: Piece, address: Address): StoredValue | undefined {
  return valueAt(linkPiece(piece), address);
}

function motionsWithin(value: unknown): MotionDoc[] {
  if (Array.isArray(value)) return value.flatMap(motionsWithin);
  if (!isMoving(value)) return [];
  return [value, ...(value.layers ?? []).flatMap((l) => motionsWithin(l.motion))];
}

function needsLink(values: Values): boolean {
  return Object.values(values).some((v) =>
    motionsWithin(v).some((m) => m.motion === 'follow' || (m.motion === 'formula' && usesPlace(m.text as string))),
  );
}

/** Addresses that a value follows, itself and in its layers. */
export function sourcesOf(value: unknown): string[] {
  return motionsWithin(value)
    .filter((m) => m.motion === 'follow' && m.of !== '')
    .map((m) => m.of as string);
}

/** Ribbons that values of a step name, by parameter. */
export function ribbonsNamed(step: StepDoc): [string, string][] {
  return Object.entries(stepKind(step.kind).params)
    .filter(([name, p]) => p.type === 'ribbon' && typeof step.values[name] === 'string' && step.values[name] !== '')
    .map(([name]) => [name, step.values[name] as string]);
}

/** Most motions behind one value, counting those that followed ones follow. */
export const MOST_FOLLOWED = 5000;

/** Number of motions behind a value, by address key; computed once for each. */
export function growthOf(piece: Piece): (key: string) => number {
  let index: Map<string, Found> | null = null;
  const known = new Map<string, number>();
  const growth = (key: string): number => {
    const done = known.get(key);
    if (done !== undefined) return done;
    // A value that follows itself is cut there; meanwhile it counts as one.
    known.set(key, 1);
    const found = (index ??= new Map(valuesOf(piece).map((v) => [addressKey(v.address), v]))).get(key);
    const sum = found
      ? sourcesOf(found.value).reduce(
          (n, source) => Math.min(1e9, n + growth(source)),
          Math.max(1, motionsWithin(found.value).length),
        )
      : 1;
    known.set(key, sum);
    return sum;
  };
  return growth;
}

function ribbonAt(piece: Piece, owner: Owner): RibbonDoc | undefined {
  return 'ribbon' in owner ? piece.ribbons.find((r) => r.id === owner.ribbon) : undefined;
}

function placeOf(piece: Piece, ribbon: RibbonDoc | undefined): Place {
  if (!ribbon) return NO_PLACE;
  const order = piece.ribbons.findIndex((r) => r.id === ribbon.id);
  return { order, count: piece.ribbons.length, seed: randomSource(order + 1)() };
}

/** Whether a step takes some values from an earlier one. */
function takesOver(step: StepDoc): boolean {
  const { shares } = stepKind(step.kind);
  return shares !== undefined && step.values[shares.where] === shares.is;
}

/** The piece with values that steps take over from the nearest earlier step of their kind, motions included. */
function withShared(piece: Piece): Piece {
  if (!piece.ribbons.some((r) => r.steps.some(takesOver))) return piece;
  const ribbons = piece.ribbons.map((r) => {
    const before = new Map<string, Values>();
    const steps = r.steps.map((step) => {
      let { values } = step;
      const { shares, params } = stepKind(step.kind);
      if (shares && takesOver(step)) {
        const from = before.get(step.kind);
        const taken = shares.names.map((name) => [name, from?.[name] ?? params[name].default] as const);
        values = { ...values, ...Object.fromEntries(taken) };
      }
      if (step.on) before.set(step.kind, values);
      return values === step.values ? step : { ...step, values };
    });
    return { ...r, steps };
  });
  return { ...piece, ribbons };
}

function link(piece: Piece): Piece {
  const names = new Set(piece.ribbons.filter((r) => r.steps.some((s) => ribbonsNamed(s).length > 0)).map((r) => r.id));
  if (
    names.size === 0 &&
    !piece.ribbons.some((r) => r.steps.some(takesOver)) &&
    !ownersOf(piece).some((o) => needsLink(o.item.values))
  )
    return piece;

  const growth = growthOf(piece);
  const resolved = new Map<string, NumberValue | string>();
  let circles = 0;
  let index: Map<string, Found> | null = null;
  const find = (key: string) => (index ??= new Map(valuesOf(piece).map((v) => [addressKey(v.address), v]))).get(key);
  /** The followed value, itself linked; undefined if it is gone or follows itself. */
  const resolve = (key: string, colour: boolean, trail: ReadonlySet<string>): NumberValue | string | undefined => {
    const found = find(key);
    if (trail.has(key)) circles++;
    if (!found || trail.has(key) || trail.size > 60 || isColourPlace(found) !== colour || growth(key) > MOST_FOLLOWED)
      return undefined;
    const known = resolved.get(key);
    if (known !== undefined) return known;
    const cuts = circles;
    const value = linkedMotion(
      found.value,
      placeOf(piece, ribbonAt(piece, found.address.owner)),
      colour,
      new Set([...trail, key]),
    );
    // If no circle was cut, every follower gets the same.
    if (circles === cuts) resolved.set(key, value);
    return value;
  };
  const linkedMotion = <T extends NumberValue | string>(
    value: T,
    place: Place,
    colour: boolean,
    trail: ReadonlySet<string>,
  ): T => {
    if (!isMoving(value)) return value;
    let out: MotionDoc = value;
    if (value.motion === 'follow')
      out = { ...out, source: value.of === '' ? undefined : resolve(value.of as string, colour, trail) };
    if (value.motion === 'formula' && usesPlace(value.text as string)) out = { ...out, place };
    if (value.layers?.some((l) => motionsWithin(l.motion).length > 0))
      out = {
        ...out,
        layers: value.layers.map((l): LayerDoc => ({ ...l, motion: linkedMotion(l.motion, place, colour, trail) })),
      };
    return out as T;
  };
  const linkedValues = (values: Values, place: Place, owner: Address['owner']): Values => {
    if (!needsLink(values)) return values;
    return Object.fromEntries(
      Object.entries(values).map(([param, v]): [string, StoredValue] => {
        // Colour motions have no numbers of their own: the parameter tells them.
        if (Array.isArray(v)) {
          // Lists of points, keys and the like contain no motions, and may be long.
          if (!v.some(isMoving)) return [param, v as StoredValue];
          return [
            param,
            vec3((axis) =>
              linkedMotion(v[axis] as NumberValue, place, false, new Set([addressKey({ owner, param, axis })])),
            ),
          ];
        }
        const key = addressKey({ owner, param });
        const found = isMoving(v) ? find(key) : undefined;
        return [param, found ? linkedMotion(v as NumberValue, place, isColourPlace(found), new Set([key])) : v];
      }),
    );
  };
  const linkedItem = ({ item, owner }: Owned): Item => {
    const values = linkedValues(item.values, placeOf(piece, ribbonAt(piece, owner)), owner);
    return values === item.values ? item : { ...item, values };
  };
  const plain = withShared(mapOwners(piece, linkedItem));
  const byId = new Map(plain.ribbons.map((r) => [r.id, r]));
  /**
   * A ribbon with those it names, recursively. A ribbon cannot be made of itself: what leads back is left out. Visited
   * ribbons are shared, so that the time is linear in the names.
   */
  const named = (r: RibbonDoc, trail: Set<string>, done: Map<string, RibbonDoc>): RibbonDoc => {
    if (!names.has(r.id)) return r;
    const known = done.get(r.id);
    if (known) return known;
    trail.add(r.id);
    const steps = r.steps.map((s) => {
      const others = ribbonsNamed(s).flatMap(([name, id]) => {
        const other = trail.has(id) ? undefined : byId.get(id);
        return other ? [[name, named(other, trail, done)] as const] : [];
      });
      return others.length > 0 ? { ...s, others: Object.fromEntries(others) } : s;
    });
    trail.delete(r.id);
    const out = { ...r, steps };
    done.set(r.id, out);
    return out;
  };
  return { ...plain, ribbons: plain.ribbons.map((r) => named(r, new Set(), new Map())) };
}

/** Followers that lead from a value back to it, the value itself first; null if there is no circle. */
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
