import { dot, normalize, vec3 } from '@maypole/core/maths/vec3';
import type { NumberValue, StoredValue } from '@maypole/core/declare/params';
import { linkPiece } from '@maypole/core/piece/link';
import { cameraOf } from '@maypole/core/piece/piece';
import { withValues } from '@maypole/core/piece/walk';
import { evaluateValues } from '@maypole/core/time/values';
import { focusedOn, orbitParams } from '@maypole/core/scene/cameras/orbit';
import { halfHeight } from '@maypole/core/scene/lens';
import { projectionOf, type Projection } from '@maypole/core/scene/projection';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { scaledValue, shiftedValue } from '@maypole/core/time/reshape';
import type { Box } from '@maypole/core/copies/bounds';
import { boxOf } from '@/engine/draw/box';
import { session } from './session';
import { useEditor } from './store';

/** Changes the active camera; edits of one drag are one edit. */
function change(label: string, update: (camera: Record<string, StoredValue>) => void, drag = ''): void {
  useEditor.getState().edit(
    label,
    (piece) =>
      withValues(piece, { type: 'scene', item: cameraOf(piece).id }, ({ item }) => {
        const camera = { ...item.values } as Record<string, StoredValue>;
        update(camera);
        return camera;
      }),
    `camera/${drag}`,
  );
}

/** Its values at the playhead. */
function cameraNow() {
  const { piece, frame } = useEditor.getState();
  return {
    aspect: piece.format.width / piece.format.height,
    ...evaluateValues(orbitParams, cameraOf(linkPiece(piece)).values, { frame, frames: piece.loop.frames }),
  };
}

const rangeOf = (name: 'azimuth' | 'elevation' | 'distance' | 'target' | 'span'): [number, number] => [
  orbitParams[name].min,
  orbitParams[name].max,
];
const within = (x: number, [min, max]: readonly [number, number]) => Math.max(min, Math.min(max, x));

/** Orbits the target by angles in degrees. */
export function orbit(azimuth: number, elevation: number, drag?: string): void {
  change(
    'Orbit',
    (c) => {
      c.azimuth = shiftedValue(c.azimuth as NumberValue, azimuth, rangeOf('azimuth'));
      c.elevation = shiftedValue(c.elevation as NumberValue, elevation, [-89.9, 89.9]);
    },
    drag,
  );
}

/** Pans the target by shares of the picture's height, right and up as seen. */
export function pan(right: number, up: number, drag?: string): void {
  const { piece, frame } = useEditor.getState();
  const { camera } = sceneAt(piece, frame);
  const aspect = piece.format.width / piece.format.height;
  const { distance } = cameraNow();
  const by = projectionOf(camera, aspect, aspect, 1).across(right, -up, distance);
  change(
    'Pan',
    (c) => {
      c.target = vec3((k) => shiftedValue((c.target as readonly NumberValue[])[k], by[k], rangeOf('target')));
    },
    drag,
  );
}

/** Zooms in (factor < 1) or out. */
export function zoom(factor: number, drag?: string): void {
  change(
    'Zoom',
    (c) => {
      const [name, usual] = c.lens === 'parallel' ? (['span', 6] as const) : (['distance', 7] as const);
      c[name] = scaledValue((c[name] ?? usual) as NumberValue, factor, rangeOf(name));
    },
    drag,
  );
}

/** Share of the half picture that is filled when everything is framed. */
const FILLED = 0.92;

/**
 * Frames everything visible over the evaluated part of the loop: bounds of all shapes, from the camera at each frame.
 */
export function frameAll(): void {
  const boxes = boxesShown();
  if (boxes.length === 0) return;
  const middle = vec3((k) => (Math.min(...boxes.map((b) => b.min[k])) + Math.max(...boxes.map((b) => b.max[k]))) / 2);
  const target = vec3((k) => within(Number(middle[k].toFixed(3)), rangeOf('target')));
  const { piece } = useEditor.getState();
  const at = cameraNow();
  // Half the picture a metre ahead, upwards and sideways.
  const half = FILLED * halfHeight({ focalLength: at.focalLength, parallel: 0 }, at.aspect, at.aspect);
  let [distance, high, wide] = [0, 0, 0];
  const views = new Map<number, Projection>();
  for (const box of boxes) {
    const seen = views.get(box.frame) ?? projectionOf(sceneAt(piece, box.frame).camera, at.aspect, at.aspect, 1);
    views.set(box.frame, seen);
    const [right, down] = [seen.across(1, 0, 1), seen.across(0, 1, 1)].map((v) => normalize(v)!);
    for (let corner = 0; corner < 8; corner++) {
      const off = vec3((k) => ((corner >> k) & 1 ? box.max[k] : box.min[k]) - target[k]);
      const [x, y, ahead] = [Math.abs(dot(off, right)), Math.abs(dot(off, down)), dot(off, seen.ahead)];
      distance = Math.max(distance, y / half - ahead, x / (half * at.aspect) - ahead);
      [wide, high] = [Math.max(wide, x), Math.max(high, y)];
    }
  }
  const span = (2 / FILLED) * Math.max(wide * Math.max(1, 1 / at.aspect), high * Math.max(1, at.aspect));
  const tidy = (x: number, name: 'distance' | 'span') => within(Number((x || 1).toPrecision(6)), rangeOf(name));
  change('Frame all', (c) => {
    c.target = target;
    if (c.lens === 'parallel') c.span = tidy(span, 'span');
    else c.distance = tidy(distance, 'distance');
  });
}

/** Bounds of what is visible at a dozen evaluated frames, and the current one. */
function boxesShown(): (Box & { readonly frame: number })[] {
  const { piece, frame } = useEditor.getState();
  const engine = session()?.engine;
  const step = Math.max(1, Math.floor(piece.loop.frames / 12));
  const frames = new Set([frame, ...Array.from({ length: 12 }, (_, i) => Math.min(piece.loop.frames - 1, i * step))]);
  const shown = piece.ribbons.filter((r) => r.on);
  return [...frames]
    .flatMap((f) =>
      shown.flatMap((r) => (engine?.geometry(r, f)?.parts ?? []).map((part) => ({ ...boxOf(part), frame: f }))),
    )
    .filter((box) => box.min[0] <= box.max[0]);
}

/** Isometric view: parallel rays, the three axes equally long and 120° apart (ISO 5456-3). */
export function isometric(): void {
  change('Isometric', (c) => {
    const { distance, focalLength } = cameraNow();
    if (c.lens !== 'parallel') c.span = within(Number(((distance * 36) / focalLength).toPrecision(4)), rangeOf('span'));
    c.lens = 'parallel';
    c.azimuth = 45;
    c.elevation = ISOMETRIC;
    c.roll = 0;
  });
}

/** Keeps the centre of the selected ribbon in focus. */
export function focusOnRibbon(): void {
  const { ribbonId, piece } = useEditor.getState();
  if (!ribbonId) return;
  const name = piece.ribbons.find((r) => r.id === ribbonId)?.name ?? '';
  change(`Focus on ${name}`, (c) => void Object.assign(c, focusedOn(c, { ribbon: ribbonId })));
}

/** Degrees: its sine is the tangent of 30°. */
const ISOMETRIC = (Math.asin(Math.tan(Math.PI / 6)) * 180) / Math.PI;

const ramp = (from: number): StoredValue => ({
  motion: 'keys',
  keys: [{ at: 0, value: from, to: 'linear' }],
  adds: 360,
});
const swing = (middle: number, by: number): StoredValue => ({
  motion: 'wave',
  shape: 'sine',
  width: 50,
  low: middle - by,
  high: middle + by,
  turns: 1,
  phase: 0,
  rest: 0,
});

/** Camera moves, all of which close. */
export const MOVES = [
  { id: 'round', title: 'Once round', help: 'Goes round the point it looks at in one loop, evenly.' },
  { id: 'sway', title: 'Sway', help: 'Swings a little to either side and back.' },
  { id: 'push', title: 'Push in and out', help: 'Comes nearer and goes back.' },
  { id: 'still', title: 'Stand still', help: 'Stays where it is now.' },
] as const;

/** Moves the camera from its position at the playhead. */
export function moveCamera(id: (typeof MOVES)[number]['id']): void {
  const at = cameraNow();
  change(MOVES.find((m) => m.id === id)!.title, (c) => {
    const push = c.lens === 'parallel' ? 'span' : 'distance';
    if (id === 'round') c.azimuth = ramp(Number(at.azimuth.toFixed(2)));
    else if (id === 'sway') c.azimuth = swing(Number(at.azimuth.toFixed(2)), 14);
    else if (id === 'push') c[push] = swing(at[push], 0.15 * at[push]);
    else for (const name of ['azimuth', 'elevation', push, 'roll'] as const) c[name] = at[name];
  });
}
