import { channelOf } from '@maypole/core/finish/part';
import { finishParts } from '@maypole/core/finish/parts/index';
import { freshLayer } from '@maypole/core/pattern/layer';
import { patterns } from '@maypole/core/pattern/kinds/index';
import type { PatternDoc } from '@maypole/core/piece/piece';
import { newItem, type PartDoc, type RibbonDoc, type Values } from '@maypole/core/piece/piece';
import { evaluateParam } from '@maypole/core/time/values';
import { linkedValue } from '@maypole/core/piece/link';
import { layerParams } from '@maypole/core/pattern/layer';
import { useEditor } from '../state/store';

/** The ribbon with changed pattern layers on one part. */
function withPatterns(
  ribbon: RibbonDoc,
  part: string,
  change: (layers: readonly PatternDoc[]) => readonly PatternDoc[],
): RibbonDoc {
  return {
    ...ribbon,
    finishes: ribbon.finishes.map((f) =>
      f.parts.some((p) => p.id === part)
        ? { ...f, parts: f.parts.map((p) => (p.id === part ? { ...p, patterns: change(p.patterns ?? []) } : p)) }
        : f,
    ),
  };
}

export function editPatterns(
  label: string,
  ribbon: string,
  part: string,
  change: (layers: readonly PatternDoc[]) => readonly PatternDoc[],
): void {
  useEditor.getState().editRibbon(label, ribbon, (r) => withPatterns(r, part, change));
}

/** Adds a layer to a value of a part, from its present value to another, so that it is visible at once. */
export function addPattern(ribbon: string, part: PartDoc, name: string, kind: string): void {
  const target = channelOf(finishParts.get(part.kind), name)?.target;
  if (!target) return;
  const { piece, frame } = useEditor.getState();
  const stored = linkedValue(piece, { owner: { type: 'part', ribbon, item: part.id }, param: name });
  const now = evaluateParam(target, stored, { frame, frames: piece.loop.frames }) as number | string;
  const declared = patterns.get(kind);
  const params = layerParams(declared, target);
  const layer: PatternDoc = {
    ...newItem({ kind, params }, freshLayer(kind, target, now) as Values),
    of: name,
  };
  editPatterns(`Pattern of ${target.title.toLowerCase()}`, ribbon, part.id, (layers) => [...layers, layer]);
}

/** The key of a value's patterns in the editor's list of what is open. */
export function patternKey(part: string, name: string): string {
  return `pattern/${part}/${name}`;
}
