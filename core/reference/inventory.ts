import { faceKinds } from '../finish/surface';
import { finishParts } from '../finish/parts/index';
import { noiseKinds } from '../noise/kinds/index';
import { outputs } from '../output/index';
import { renderings } from '../output/rendering';
import { channelOf } from '../finish/part';
import { patterns } from '../pattern/kinds/index';
import { layerParams } from '../pattern/layer';
import { sceneListNames, sceneLists } from '../scene/index';
import { stepKinds } from '../steps/index';
import { colourMotionKinds } from '../time/colours/index';
import { SEGMENTS } from '../time/keys/key';
import { motionKinds } from '../time/motions/index';
import type { Param, Params } from '../declare/params';

/** Everything that a document of a version may say, a line each: kinds, their values, and what may be chosen. */
export type Inventory = readonly string[];

/**
 * What of a declaration decides whether an older Maypole can read a value: its type, what may be chosen, its
 * limits, whether it may move.
 */
function told(p: Param): string {
  const parts: string[] = [p.type];
  if (p.type === 'choice') parts.push(p.options.map((o) => o.value).join(' '));
  if (p.type === 'number' || p.type === 'vector') parts.push(`${p.min} to ${p.max}`);
  if (p.type === 'text') parts.push(`to ${p.max}`);
  if ('moves' in p && p.moves) parts.push('moves');
  return parts.join(', ');
}

function lines(sort: string, kinds: readonly { readonly kind: string; readonly params: Params }[]): string[] {
  return kinds.flatMap((k) => [
    `${sort} ${k.kind}`,
    ...Object.entries(k.params).map(([name, p]) => `${sort} ${k.kind}: ${name}: ${told(p)}`),
  ]);
}

/** Values that patterns can lie on, and what a layer declares for each besides its kind. */
function patternTargets(): string[] {
  return finishParts.all.flatMap((part) =>
    Object.keys(part.channels ?? {}).flatMap((name) => {
      const target = channelOf(part, name)!.target;
      const first = patterns.all[0];
      const common = Object.entries(layerParams(first, target)).filter(([n]) => !(n in first.params));
      return common.map(([n, p]) => `pattern on ${part.kind} ${name}: ${n}: ${told(p)}`);
    }),
  );
}

/**
 * All that is declared now. A document that uses a line which an older Maypole has not is “newer” to
 * it, so any line more raises PIECE_VERSION; `core/fixtures/version-N/declared.txt` keeps those of each.
 */
export function inventory(): Inventory {
  return [
    ...lines('step', stepKinds),
    ...lines('motion', motionKinds),
    ...lines('colour motion', colourMotionKinds),
    ...SEGMENTS.map((s) => `segment ${s.value}`),
    ...noiseKinds.map((k) => `noise ${k.kind}`),
    ...faceKinds.map((f) => `faces ${f}`),
    ...lines('finish part', finishParts.all),
    ...lines('pattern', patterns.all),
    ...patternTargets(),
    ...sceneListNames.flatMap((list) => lines(list, sceneLists[list].kinds.all)),
    ...lines('rendering', renderings.all),
    ...lines('output', outputs.all),
  ].sort();
}
