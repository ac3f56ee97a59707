/// <reference lib="webworker" />
import { facesShown, flattened, withCopies } from '@maypole/core/copies/copies';
import { filtered } from '@maypole/core/copies/places';
import { makeReady } from '@maypole/core/evaluate/assets';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { newStep, type RibbonDoc } from '@maypole/core/piece/piece';
import type { Mesh } from '@maypole/core/shape/mesh';
import { stepKind } from '@maypole/core/steps/index';
import type { Loop } from '@maypole/core/time/loop';
import { fetchAsset } from '../../view/stage/fetch-asset';
import { yieldToMessages } from '../evaluate/yield';
import { sketch } from './sketch';
import { scope } from '../../view/stage/worker-scope';

/** Pictures of what each of these steps would make of a ribbon, or of forms by themselves. */
export interface SketchJob {
  readonly id: number;
  /** Linked; null for forms. */
  readonly ribbon: RibbonDoc | null;
  readonly loop: Loop;
  readonly frame: number;
  readonly kinds: readonly string[];
  readonly size: number;
  readonly tone: string;
}

export interface Sketched {
  readonly id: number;
  readonly kind: string;
  readonly image: Uint8ClampedArray<ArrayBuffer>;
}

const cache = new MeshCache();
/** Larger shapes would keep the worker busy for seconds; they get no picture. */
const MOST_POINTS = 150_000;
let newest = 0;

/** Some of the copies if all would take too long; a sketch of fewer says as much. */
function fewer(mesh: Mesh): Mesh {
  const times = Math.ceil(facesShown(mesh) / MOST_POINTS);
  return mesh.copies && times > 1 ? withCopies(filtered(mesh.copies, (i) => i % times === 0)) : mesh;
}

scope.onmessage = async ({ data }: MessageEvent<SketchJob>) => {
  newest = data.id;
  for (const kind of data.kinds) {
    await yieldToMessages();
    if (newest !== data.id) return;
    const form = stepKind(kind).group === 'form';
    const base: RibbonDoc =
      form || !data.ribbon
        ? { id: 'sketch', name: '', colour: data.tone, on: true, finishes: [], steps: [] }
        : data.ribbon;
    try {
      await makeReady({ ...base, steps: [...base.steps, newStep(kind, {}, 'sketch')] }, fetchAsset);
      if (newest !== data.id) return;
      const { mesh, problems } = evaluateRibbon(
        { ...base, steps: [...base.steps, newStep(kind, {}, 'sketch')] },
        data.loop,
        data.frame,
        'draft',
        cache,
      );
      if (mesh.positions.length / 3 > MOST_POINTS || problems.some((p) => p.step === 'sketch')) continue;
      const image = sketch(flattened(fewer(mesh)), data.size, data.tone);
      scope.postMessage({ id: data.id, kind, image } satisfies Sketched, [image.buffer]);
    } catch {
      // A step that fails on this form has no picture; its card says why once it is chosen.
    }
  }
};
