import type { Item } from '../declare/items';
import { outputs } from './index';
import { nameBy, toldApart, type Named } from './names';

/** Base names of outputs, in order. */
export function basesOf(items: readonly Item[], pattern: string, named: Omit<Named, 'output'>): string[] {
  return toldApart(
    items.map(({ kind }) => {
      const { ending, many, beside = [] } = outputs.get(kind);
      const base = nameBy(pattern.replaceAll('{frame}', ''), { ...named, output: kind });
      return { base, output: kind, endings: many ? [`/.${ending}`] : [`.${ending}`, ...beside] };
    }),
  );
}
