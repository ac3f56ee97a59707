import type { Item } from '../declare/items';
import { outputs } from './index';
import { nameBy, toldApart, type Named } from './names';

/** Bases of the names of outputs, in their order. */
export function basesOf(items: readonly Item[], pattern: string, named: Omit<Named, 'output'>): string[] {
  return toldApart(
    items.map(({ kind }) => {
      const { ending, many, beside = [] } = outputs.get(kind);
      const base = nameBy(pattern.replaceAll('{frame}', ''), { ...named, output: kind });
      return { base, output: kind, endings: many ? [`/.${ending}`] : [`.${ending}`, ...beside] };
    }),
  );
}
