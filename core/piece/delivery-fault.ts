import type { Evaluated, Params } from '../declare/params';
import { evaluateValues } from '../time/values';
import type { Item, Piece } from './piece';
import { outputs } from '../output/index';
import { patternFault } from '../output/names';
import { deliveredSize, framesWanted, renderSettings } from '../output/render-settings';

/** Values of an output as constants. */
export function outputValues(item: Pick<Item, 'kind' | 'values'>): Evaluated<Params> {
  return evaluateValues(outputs.get(item.kind).params, item.values, { frame: 0, frames: 1 });
}

/** Why an output cannot be made with the current render settings, and the remedy; null if it can. */
export function outputFault(piece: Piece, item: Item): string | null {
  const settings = renderSettings(piece.render.values);
  const { refusal } = outputs.get(item.kind);
  const frames = framesWanted(settings, piece.loop.frames).length;
  return (
    refusal?.({
      ...{ size: deliveredSize(piece), light: settings.light, frames, fps: piece.loop.fps, values: outputValues(item) },
    }) ?? null
  );
}

/** What is wrong with a delivery, and the remedy; null if nothing is. */
export function deliveryFault(piece: Piece): string | null {
  const items = piece.outputs.filter((o) => o.on);
  if (items.length === 0) return 'Nothing is to be delivered yet: add an output.';
  if (piece.ribbons.every((r) => !r.on)) return 'There is nothing in the picture: add a ribbon, or show one.';
  for (const item of items) {
    const fault = outputFault(piece, item);
    if (fault) return `${outputs.get(item.kind).title}: ${fault}`;
  }
  return patternFault(renderSettings(piece.render.values).name);
}
