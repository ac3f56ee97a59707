import { stepKind } from '../steps/index';
import { applyStep, StepProblem, type Detail, type StepContext } from '../steps/step';
import type { Mesh } from '../shape/mesh';
import type { RibbonDoc } from '../piece/piece';
import type { Clock, Loop } from '../time/loop';
import { assetOf } from './assets';
import { fingerprint } from './hash';
import type { MeshCache } from './mesh-cache';
import { evaluateValues } from './values';

export const EMPTY_MESH: Mesh = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};

export interface Problem {
  readonly step: string;
  readonly message: string;
}

export interface RibbonResult {
  readonly mesh: Mesh;
  /** Equal keys mean equal meshes, in every worker. */
  readonly key: string;
  readonly problems: readonly Problem[];
}

/**
 * A ribbon at an unwrapped frame (any real number). Steps whose values and input have not changed
 * are taken from the cache; a step that changes by itself is keyed by the unwrapped frame, so
 * frame N is computed and never borrowed from frame 0.
 */
export function evaluateRibbon(ribbon: RibbonDoc, loop: Loop, frame: number, detail: Detail, cache: MeshCache, asset: StepContext['asset'] = assetOf): RibbonResult {
  const clock: Clock = { frame, frames: loop.frames };
  let mesh = EMPTY_MESH;
  let key = 'empty';
  const problems: Problem[] = [];
  ribbon.steps.forEach((step, index) => {
    if (!step.on) return;
    const kind = stepKind(step.kind);
    if ((kind.group === 'form') !== (index === 0)) {
      problems.push({
        step: step.id,
        message: index === 0 ? `A ribbon begins with a form; put one before ${kind.title}.` : `${kind.title} is a form and can only begin a ribbon; it is passed over here.`,
      });
      return;
    }
    const values = evaluateValues(kind.params, step.values, clock);
    const moment = kind.changesByItself?.(values) ? `@${frame}/${loop.frames}` : '';
    const others: Record<string, RibbonResult> = {};
    for (const [name, other] of Object.entries(step.others ?? {})) others[name] = evaluateRibbon(other, loop, frame, detail, cache, asset);
    const beside = Object.entries(others).map(([name, r]) => `${name}:${r.key}`).join();
    // A file that has arrived makes another shape than one that has not.
    const files = Object.entries(kind.params).filter(([, p]) => p.type === 'asset').map(([name]) => (asset?.(values[name] as string) ? 1 : 0)).join();
    const stepKey = fingerprint(`${kind.kind}|${JSON.stringify(values)}|${kind.hasDetail ? detail : ''}|${moment}|${key}|${beside}|${files}`);
    const hit = cache.get(stepKey);
    if (hit) {
      [mesh, key] = [hit, stepKey];
      return;
    }
    try {
      mesh = applyStep(kind, values, mesh, { clock, detail, asset, other: (name) => others[name]?.mesh });
      key = stepKey;
      cache.set(key, mesh);
    } catch (error) {
      if (!(error instanceof StepProblem)) throw error;
      problems.push({ step: step.id, message: error.message });
    }
  });
  return { mesh, key, problems };
}

/** What a ribbon's shape depends on: equal texts give equal shapes at every frame. */
export function ribbonFingerprint(ribbon: RibbonDoc, loop: Loop, detail: Detail): string {
  const steps = ribbon.steps.map((s) => [s.id, s.kind, s.on, s.values, s.others]);
  return fingerprint(JSON.stringify([steps, loop.frames, detail]));
}
