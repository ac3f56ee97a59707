import type { Address } from '@maypole/core/piece/addresses';
import type { Piece } from '@maypole/core/piece/piece';
import { starts } from '@maypole/core/starts/index';
import { stepKind } from '@maypole/core/steps/index';
import { dropText, keepText, keptText } from './browser-store';

const keyOf = (id: string) => `maypole-started-${id}`;

/** Remembers, for this tab, the starting point of a piece. */
export const noteStart = (id: string, start: string): void => void keepText(keyOf(id), start, 'session');
export const forgetStart = (id: string): void => dropText(keyOf(id), 'session');

/** A value worth changing first: its name and address. */
export interface FirstTurn {
  readonly words: string;
  readonly address: Address;
}

/** Values worth changing first in a piece begun from a starting point in this tab; none if they are gone. */
export function firstTurns(id: string, piece: Piece): FirstTurn[] {
  const start = starts.find((s) => s.id === keptText(keyOf(id), 'session'));
  if (!start) return [];
  return start.first.flatMap(({ step, param }) => {
    for (const r of piece.ribbons) {
      const found = r.steps.find((s) => s.kind === step);
      if (!found) continue;
      const { title, params } = stepKind(step);
      const address: Address = { owner: { type: 'step', ribbon: r.id, item: found.id }, param };
      return [{ words: `${title} ${params[param].title.toLowerCase()}`, address }];
    }
    return [];
  });
}
