import { vec3 } from '@maypole/core/maths/vec3';
import type { NumberValue, StoredValue } from '@maypole/core/declare/params';
import { linkPiece } from '@maypole/core/piece/link';
import { cameraOf } from '@maypole/core/piece/piece';
import { withValues } from '@maypole/core/piece/walk';
import { evaluateValues } from '@maypole/core/evaluate/values';
import { focusedOn, orbitParams } from '@maypole/core/scene/cameras/orbit';
import { halfHeight } from '@maypole/core/scene/lens';
import { projectionOf } from '@maypole/core/scene/projection';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { scaledValue, shiftedValue } from '@maypole/core/time/reshape';
import { boxOf } from '@/engine/box';
import { session } from './session';
import { useEditor } from './store';

/** Changes the camera that is looked through. */
function change(label: string, update: (camera: Record<string, StoredValue>) => void): void {
  useEditor.getState().edit(
    label,
    (piece) =>
      withValues(piece, { type: 'scene', item: cameraOf(piece).id }, ({ item }) => {
        const camera = { ...item.values } as Record<string, StoredValue>;
        update(camera);
        return camera;
      }),
    'camera',
  );
}

/** The values of that camera at the playhead. */
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

/** Goes round the target by angles in degrees. */
export function orbit(azimuth: number, elevation: number): void {
  change('Orbit', (c) => {
    c.azimuth = shiftedValue(c.azimuth as NumberValue, azimuth, rangeOf('azimuth'));
    c.elevation = shiftedValue(c.elevation as NumberValue, elevation, [-89.9, 89.9]);
  });
}

/** Shifts the target by parts of the picture's height, to the right and up as seen. */
export function pan(right: number, up: number): void {
  const { piece, frame } = useEditor.getState();
  const { camera } = sceneAt(piece, frame);
  const aspect = piece.format.width / piece.format.height;
  const { distance } = cameraNow();
  const by = projectionOf(camera, aspect, aspect, 1).across(right, -up, distance);
  change('Pan', (c) => {
    c.target = vec3((k) => shiftedValue((c.target as readonly NumberValue[])[k], by[k], rangeOf('target')));
  });
}

/** Comes nearer (factor < 1) or goes farther. */
export function zoom(factor: number): void {
  change('Zoom', (c) => {
    const [name, usual] = c.lens === 'parallel' ? (['span', 6] as const) : (['distance', 7] as const);
    c[name] = scaledValue((c[name] ?? usual) as NumberValue, factor, rangeOf(name));
  });
}

/** Brings everything that is shown now into the picture, over the whole loop as far as it is ready. */
export function frameAll(): void {
  const { piece, frame } = useEditor.getState();
  const engine = session()?.engine;
  if (!engine) return;
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  const step = Math.max(1, Math.floor(piece.loop.frames / 12));
  const frames = new Set([frame, ...Array.from({ length: 12 }, (_, i) => Math.min(piece.loop.frames - 1, i * step))]);
  for (const ribbon of piece.ribbons)
    for (const f of frames) {
      const shape = ribbon.on ? engine.geometry(ribbon, f) : undefined;
      if (!shape) continue;
      for (const part of shape.parts) {
        const box = boxOf(part);
        for (let k = 0; k < 3; k++) {
          min[k] = Math.min(min[k], box.min[k]);
          max[k] = Math.max(max[k], box.max[k]);
        }
      }
    }
  if (min[0] > max[0]) return;
  const at = cameraNow();
  const half = Math.atan(halfHeight({ focalLength: at.focalLength, parallel: 0 }, at.aspect, at.aspect));
  const narrow = Math.min(half, Math.atan(Math.tan(half) * at.aspect));
  const radius = Math.hypot(...max.map((m, k) => (m - min[k]) / 2)) || 0.5;
  const distance = within(Number(((radius * 0.92) / Math.sin(narrow)).toPrecision(6)), rangeOf('distance'));
  const longer = Math.max(at.aspect, 1 / at.aspect);
  const span = within(Number((2 * radius * 0.96 * longer).toPrecision(6)), rangeOf('span'));
  change('Frame all', (c) => {
    c.target = vec3((k) => within(Number(((max[k] + min[k]) / 2).toFixed(3)), rangeOf('target')));
    if (c.lens === 'parallel') c.span = span;
    else c.distance = distance;
  });
}

/** Looks as an isometric drawing does: rays parallel, the three axes equally long and 120° apart (ISO 5456-3). */
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

/** Keeps the middle of the ribbon that is chosen sharp. */
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

/** Ways for the camera to move, all of which close. */
export const MOVES = [
  { id: 'round', title: 'Once round', help: 'Goes round the point it looks at in one loop, evenly.' },
  { id: 'sway', title: 'Sway', help: 'Swings a little to either side and back.' },
  { id: 'push', title: 'Push in and out', help: 'Comes nearer and goes back.' },
  { id: 'still', title: 'Stand still', help: 'Stays where it is now.' },
] as const;

/** Moves the camera from where it is at the playhead. */
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
