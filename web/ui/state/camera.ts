import { vec3 } from '@maypole/core/maths/vec3';
import type { NumberValue, StoredValue } from '@maypole/core/declare/params';
import { linkPiece } from '@maypole/core/piece/link';
import { cameraOf } from '@maypole/core/piece/piece';
import { withValues } from '@maypole/core/piece/walk';
import { evaluateValues } from '@maypole/core/evaluate/values';
import { orbitParams } from '@maypole/core/scene/cameras/orbit';
import { verticalFov } from '@maypole/core/scene/lens';
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

const rangeOf = (name: 'azimuth' | 'elevation' | 'distance' | 'target'): [number, number] => [
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
  const at = cameraNow();
  const height = 2 * at.distance * Math.tan((verticalFov(at.focalLength, at.aspect) * Math.PI) / 360);
  const [a, e] = [(at.azimuth * Math.PI) / 180, (at.elevation * Math.PI) / 180];
  const along = [Math.cos(a), 0, -Math.sin(a)];
  const above = [-Math.sin(e) * Math.sin(a), Math.cos(e), -Math.sin(e) * Math.cos(a)];
  change('Pan', (c) => {
    c.target = vec3((k) =>
      shiftedValue(
        (c.target as readonly NumberValue[])[k],
        (along[k] * right + above[k] * up) * height,
        rangeOf('target'),
      ),
    );
  });
}

/** Comes nearer (factor < 1) or goes farther. */
export function zoom(factor: number): void {
  change('Zoom', (c) => {
    c.distance = scaledValue(c.distance as NumberValue, factor, rangeOf('distance'));
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
  const half = (verticalFov(at.focalLength, at.aspect) * Math.PI) / 360;
  const narrow = Math.min(half, Math.atan(Math.tan(half) * at.aspect));
  const radius = Math.hypot(...max.map((m, k) => (m - min[k]) / 2)) || 0.5;
  const distance = within(Number(((radius * 0.92) / Math.sin(narrow)).toPrecision(6)), rangeOf('distance'));
  change('Frame all', (c) => {
    c.target = vec3((k) => within(Number(((max[k] + min[k]) / 2).toFixed(3)), rangeOf('target')));
    c.distance = distance;
  });
}
