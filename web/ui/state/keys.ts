import { actionIds, actionOf, type ActionId } from '@maypole/core/find/actions';
import { RESERVED } from '@maypole/core/find/chord';
import { create } from 'zustand';
import { keepText, keptJson } from './browser-store';

const KEPT = 'maypole-keys';

/** Keys that were changed in this browser: null for an action that has none any more. */
type Own = Readonly<Partial<Record<ActionId, string | null>>>;

export const useKeys = create<{ readonly own: Own }>()(() => ({ own: {} }));

/** Takes over what was changed before; what is no action, or no text, is passed over. */
export function restoreKeys(): void {
  const kept = keptJson(KEPT, {}) as Record<string, unknown>;
  const own = actionIds
    .filter((id) => id in kept && (kept[id] === null || typeof kept[id] === 'string'))
    .map((id) => [id, kept[id]]);
  useKeys.setState({ own: Object.fromEntries(own) as Own });
}

const keep = (own: Own) => {
  useKeys.setState({ own });
  keepText(KEPT, JSON.stringify(own));
};

/** The keys of an action; null where it has none. */
export function keysOf(id: ActionId, own: Own = useKeys.getState().own): string | null {
  const changed = own[id];
  return changed === undefined ? (actionOf(id).keys ?? null) : changed;
}

/** The action that keys belong to. */
export function actionWith(chord: string): ActionId | undefined {
  return actionIds.find((id) => keysOf(id) === chord);
}

/** Gives an action other keys, or none. Throws a sentence where they cannot be had. Gives the action that lost them. */
export function changeKeys(id: ActionId, chord: string | null): ActionId | undefined {
  if (chord !== null && RESERVED.includes(chord))
    throw new RangeError(`${chord} belongs to the browser, or to copying and pasting. Choose other keys.`);
  const loser = chord === null ? undefined : actionIds.find((other) => other !== id && keysOf(other) === chord);
  const own: Partial<Record<ActionId, string | null>> = { ...useKeys.getState().own, [id]: chord };
  if (loser) own[loser] = null;
  keep(own);
  return loser;
}

/** Gives an action the keys it had to begin with, and takes them from whichever has them now. */
export function resetKeys(id: ActionId): void {
  const first = actionOf(id).keys ?? null;
  if (first !== null) changeKeys(id, first);
  const { [id]: _, ...own } = useKeys.getState().own;
  keep(own);
}

export const resetAllKeys = (): void => keep({});
