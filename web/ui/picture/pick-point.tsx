'use client';

import { Box } from '@chakra-ui/react';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { dot, normalize, vec3, type Vec3 } from '@maypole/core/maths/vec3';
import { cameraOf } from '@maypole/core/piece/piece';
import { withValues } from '@maypole/core/piece/walk';
import { focusedOn } from '@maypole/core/scene/cameras/orbit';
import { projectionOf } from '@maypole/core/scene/projection';
import { useEffect } from 'react';
import { pickPoint, type PickedPoint } from '@/engine/draw/pick';
import { tell } from '../parts/toasts';
import { session } from '../state/session';
import { useEditor } from '../state/store';

export type Size = { readonly width: number; readonly height: number };

/** The ribbon at a point of the picture, in pixels. */
export function ribbonAt(x: number, y: number, size: Size): string | null {
  return pointAt(x, y, size)?.ribbon ?? null;
}

/** The surface point at a point of the picture, in pixels. */
function pointAt(
  x: number,
  y: number,
  size: Size,
): (PickedPoint & { readonly way: Vec3; readonly ribbon: string }) | null {
  const { piece, frame } = useEditor.getState();
  const { camera } = sceneAt(piece, frame);
  const { from, way } = projectionOf(camera, piece.format.width / piece.format.height, size.width, size.height).ray(
    x,
    y,
  );
  let best: (PickedPoint & { readonly ribbon: string }) | null = null;
  for (const ribbon of piece.ribbons) {
    const shape = ribbon.on ? session()?.engine.geometry(ribbon, frame) : undefined;
    const hit = shape && pickPoint(shape, from, way);
    if (hit && hit.distance < (best?.distance ?? Infinity)) best = { ...hit, ribbon: ribbon.id };
  }
  return best && { ...best, way };
}

const rounded = (p: Vec3): Vec3 => vec3((k) => Number(p[k].toFixed(3)));

/** Handles a click in the picture that something is waiting for; true if there was one. */
export function pickAt(x: number, y: number, size: Size): boolean {
  const { pick } = useEditor.getState();
  if (!pick) return false;
  const hit = pointAt(x, y, size);
  if (!hit) {
    tell('Nothing there. Click on a form.');
    return true;
  }
  useEditor.setState({ pick: null });
  const set = (label: string, item: string, values: (old: Readonly<Record<string, unknown>>) => object) =>
    useEditor
      .getState()
      .edit(label, (piece) =>
        withValues(piece, { type: 'scene', item }, ({ item: old }) => ({ ...old.values, ...values(old.values) })),
      );
  if (pick === 'focus') {
    const camera = cameraOf(useEditor.getState().piece);
    set('Focus', camera.id, (old) => focusedOn(old, rounded(hit.at)));
    return true;
  }
  // The view reflected by the surface: light from there glances into the camera.
  const way = normalize(hit.way)!;
  const into = dot(way, hit.normal);
  const back = vec3((k) => way[k] - 2 * into * hit.normal[k]);
  set('Aim by reflection', pick.light, (old) => {
    if (!Array.isArray(old.place)) {
      // A sun has only a direction.
      const elevation = (Math.asin(Math.max(-1, Math.min(1, back[1]))) * 180) / Math.PI;
      const azimuth = (Math.atan2(back[0], back[2]) * 180) / Math.PI;
      return { azimuth: Number(azimuth.toFixed(1)), elevation: Number(elevation.toFixed(1)) };
    }
    const place = old.place as unknown[];
    const still = place.every((x) => typeof x === 'number');
    const distance = still ? Math.max(0.5, Math.hypot(...vec3((k) => (place[k] as number) - hit.at[k]))) : 5;
    return {
      place: rounded(vec3((k) => hit.at[k] + distance * back[k])),
      ...('aim' in old ? { aim: rounded(hit.at) } : {}),
    };
  });
  return true;
}

/** Says what the next click does, until it is made or Escape is pressed. */
export function PickNote() {
  const pick = useEditor((s) => s.pick);
  useEffect(() => {
    if (!pick) return;
    const end = (event: KeyboardEvent) => event.key === 'Escape' && useEditor.setState({ pick: null });
    window.addEventListener('keydown', end);
    return () => window.removeEventListener('keydown', end);
  }, [pick]);
  if (!pick) return null;
  return (
    <Box
      position="absolute"
      bottom="14"
      left="50%"
      transform="translateX(-50%)"
      bg="ink"
      color="inverse"
      px="3"
      py="1.5"
      borderRadius="8px"
      fontSize="12.5px"
      fontWeight="500"
      pointerEvents="none"
      role="status"
    >
      {pick === 'focus' ? 'Click on what is to be sharp' : 'Click where the light is to glance'} · Esc to leave
    </Box>
  );
}
