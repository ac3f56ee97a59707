import { emptyBox, growBy, type Box } from '@maypole/core/copies/bounds';
import { boundsOf } from '@maypole/core/shape/measure';
import type { RibbonPart } from '../evaluate/loop-cache';

/** Bounds of a part with all its instances. */
export function boxOf({ positions, instances }: Pick<RibbonPart, 'positions' | 'instances'>): Box {
  const own = boundsOf(positions);
  if (!own) return emptyBox();
  if (!instances) return { min: [...own.min], max: [...own.max] };
  const box = emptyBox();
  for (let o = 0; o < instances.matrices.length; o += 16) growBy(box, own, instances.matrices, o);
  return box;
}
