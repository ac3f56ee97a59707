import { LIMITS } from '../declare/limits';
import { SEGMENTS } from '../time/keys/key';
import { fault, isRecord, show, within, type Fault } from './fault';

/** Range of a value given by keys. */
interface Range {
  readonly min: number;
  readonly max: number;
  readonly title: string;
}

const segments = SEGMENTS.map((s) => s.value as string);

function between(x: unknown, min: number, max: number, what: string, name: string): Fault[] {
  if (typeof x === 'number' && x >= min && x <= max) return [];
  return [fault(`${show(x)} is not ${what}, which is a number from ${min} to ${max}.`, name)];
}

function place(x: unknown, what: string): Fault[] {
  return typeof x === 'number' && x >= 0 && x < 1
    ? []
    : [
        fault(
          `${show(x)} is not a place of ${what}; it is a share of the loop, from 0 up to but not including 1.`,
          'at',
        ),
      ];
}

function tangent(x: unknown, side: 'in' | 'out'): Fault[] {
  if (x === undefined) return [];
  const sound =
    Array.isArray(x) &&
    x.length === 2 &&
    x.every((v) => typeof v === 'number' && Number.isFinite(v)) &&
    (side === 'out' ? x[0] >= 0 : x[0] <= 0);
  return sound
    ? []
    : [
        fault(
          `${show(x)} is not a tangent; write [share of the loop ${side === 'out' ? '≥ 0' : '≤ 0'}, change of value].`,
          side,
        ),
      ];
}

/** Faults of keys of a value with this range. */
export function keysFaults(x: unknown, range: Range): Fault[] {
  if (!Array.isArray(x) || x.length === 0)
    return [fault(`${show(x)} is not a list of keys; there must be at least one.`)];
  if (x.length > LIMITS.keysOfMotion)
    return [fault(`There are ${x.length} keys; a value can have at most ${LIMITS.keysOfMotion}.`)];
  return x.flatMap((key: unknown, i): Fault[] => {
    if (!isRecord(key)) return [fault(`${show(key)} is not a key; write { "at": 0, "value": 0, "to": "linear" }.`, i)];
    const unknown = Object.keys(key).filter((k) => !['at', 'value', 'to', 'ease', 'in', 'out', 'broken'].includes(k));
    const ease = key.ease;
    return within(
      [
        ...unknown.map((k) => fault(`A key has no “${k}”; leave it out.`, k)),
        ...place(key.at, 'a key'),
        ...between(key.value, range.min, range.max, `a value of ${range.title}`, 'value'),
        ...(segments.includes(key.to as string)
          ? []
          : [fault(`${show(key.to)} is not a way to the next key; use one of ${segments.join(', ')}.`, 'to')]),
        ...(ease === undefined ||
        (Array.isArray(ease) && ease.length === 2 && ease.every((e) => typeof e === 'number' && e >= 0 && e <= 1))
          ? []
          : [fault(`${show(ease)} is not an easing; write two shares from 0 to 1.`, 'ease')]),
        ...tangent(key.in, 'in'),
        ...tangent(key.out, 'out'),
        ...(key.broken === undefined || typeof key.broken === 'boolean'
          ? []
          : [fault(`${show(key.broken)} is neither true nor false.`, 'broken')]),
      ],
      i,
    );
  });
}

/** A drawn cycle. */
export function curveFaults(x: unknown): Fault[] {
  const { least, most } = LIMITS.heightsOfCurve;
  if (!Array.isArray(x) || x.length < least || x.length > most)
    return [fault(`${show(x)} is not a drawn cycle, which is a list of ${least} to ${most} heights.`)];
  return x.flatMap((v: unknown, i) =>
    typeof v === 'number' && v >= 0 && v <= 1 ? [] : [fault(`${show(v)} is not a height from 0 to 1.`, i)],
  );
}

/** Points of a closed path. */
export function pointsFaults(x: unknown): Fault[] {
  const { least, most } = LIMITS.pointsOfPath;
  if (!Array.isArray(x) || x.length < least || x.length > most)
    return [fault(`${show(x)} is not a closed path, which is a list of ${least} to ${most} points.`)];
  return x.flatMap((p: unknown, i) =>
    Array.isArray(p) && p.length === 3 && p.every((v) => typeof v === 'number' && Math.abs(v) <= 10_000)
      ? []
      : [fault(`${show(p)} is not a point; write [x, y, z] in metres, each from −10000 to 10000.`, i)],
  );
}

/** Colours of a gradient. */
export function stopsFaults(x: unknown, open = false): Fault[] {
  if (!Array.isArray(x) || x.length === 0 || x.length > LIMITS.stopsOfGradient)
    return [fault(`${show(x)} is not a gradient, which is a list of 1 to ${LIMITS.stopsOfGradient} colours.`)];
  return x.flatMap((stop: unknown, i) => {
    if (!isRecord(stop))
      return [fault(`${show(stop)} is not a colour of a gradient; write { "at": 0, "colour": "#rrggbb" }.`, i)];
    return within(
      [
        ...(open && stop.at === 1 ? [] : place(stop.at, 'a gradient')),
        ...colourFaults(stop.colour, 'the gradient').map((f) => ({ ...f, path: ['colour'] })),
      ],
      i,
    );
  });
}

/** A plain colour. */
export function colourFaults(x: unknown, title: string): Fault[] {
  return typeof x === 'string' && /^#[0-9a-f]{6}$/i.test(x)
    ? []
    : [fault(`${show(x)} is not a colour of ${title}; write it as #rrggbb.`)];
}
