import { evaluateValues } from '../time/values';
import type { PartDoc } from '../declare/items';
import type { FinishDoc } from './documents';
import type { Clock } from '../time/loop';
import { finishParts } from './parts/index';
import { patterns } from '../pattern/kinds/index';
import { patternAt } from './pattern-of';
import { FINISH } from '../shape/mesh';
import { channelOf } from './part';
import { PLAIN_SURFACE, type ChannelPattern, type Surface } from './surface';

/** The surface of a finish at an unwrapped frame. */
export function surfaceOf(finish: FinishDoc, clock: Clock): Surface {
  let surface = PLAIN_SURFACE;
  for (const part of finish.parts) {
    if (!part.on) continue;
    const { params, feature, surface: of } = finishParts.get(part.kind);
    const features = feature ? [...surface.features, feature] : surface.features;
    const patterns = [...surface.patterns, ...patternsOf(part, clock)];
    surface = { ...surface, ...of(evaluateValues(params, part.values, clock), surface), features, patterns };
  }
  return surface;
}

/** The patterns of a part, by channel. */
function patternsOf(part: PartDoc, clock: Clock): ChannelPattern[] {
  const on = part.patterns?.filter((p) => p.on) ?? [];
  if (on.length === 0) return [];
  const kind = finishParts.get(part.kind);
  return Object.keys(kind.params).flatMap((name): ChannelPattern[] => {
    const channel = channelOf(kind, name);
    const layers = on.filter((p) => p.of === name);
    if (!channel || layers.length === 0) return [];
    const { target, factor } = channel;
    return [{ channel: channel.channel, layers: layers.map((p) => patternAt(p, target, factor, clock)) }];
  });
}

/** Surfaces by face kind, see FINISH; kinds without a finish use the first. */
export type Surfaces = Readonly<Record<number, Surface>> & { readonly 0: Surface };

/** The surfaces of a ribbon. */
export function surfacesOf(finishes: readonly FinishDoc[], clock: Clock): Surfaces {
  const out: Record<number, Surface> & { 0: Surface } = { 0: PLAIN_SURFACE };
  for (const finish of finishes)
    if (finish.on || finish.of === 'main') out[FINISH[finish.of]] = surfaceOf(finish, clock);
  return out;
}

/** Whether any pattern of these finishes depends on ambient occlusion. */
export function needsOcclusion(finishes: readonly FinishDoc[]): boolean {
  return finishes.some((f) =>
    f.parts.some((p) => p.on && (p.patterns?.some((x) => x.on && patterns.get(x.kind).occlusion) ?? false)),
  );
}
