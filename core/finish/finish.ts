import { evaluateValues } from '../evaluate/values';
import type { FinishDoc } from '../piece/piece';
import type { Clock } from '../time/loop';
import { finishParts } from './parts/index';
import { FINISH } from '../shape/mesh';
import { PLAIN_SURFACE, type Surface } from './surface';

/** The surface that a finish yields at an unwrapped frame. */
export function surfaceOf(finish: FinishDoc, clock: Clock): Surface {
  let surface = PLAIN_SURFACE;
  for (const part of finish.parts) {
    if (!part.on) continue;
    const { params, feature, surface: of } = finishParts.get(part.kind);
    const features = feature ? [...surface.features, feature] : surface.features;
    surface = { ...surface, ...of(evaluateValues(params, part.values, clock), surface), features };
  }
  return surface;
}

/** Surfaces by the number of the kind of face, see FINISH; kinds without a finish of their own are not in it, and wear the first. */
export type Surfaces = Readonly<Record<number, Surface>> & { readonly 0: Surface };

/** The surfaces of a ribbon's kinds of faces. */
export function surfacesOf(finishes: readonly FinishDoc[], clock: Clock): Surfaces {
  const out: Record<number, Surface> & { 0: Surface } = { 0: PLAIN_SURFACE };
  for (const finish of finishes)
    if (finish.on || finish.of === 'main') out[FINISH[finish.of]] = surfaceOf(finish, clock);
  return out;
}
