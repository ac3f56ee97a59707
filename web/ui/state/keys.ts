import { actionIds, actionOf, type ActionId } from '@maypole/core/find/actions';
import { RESERVED } from '@maypole/core/find/chord';
import { create } from 'zustand';
import { keepText, keptJson } from './browser-store';

const KEPT = 'maypole-keys';

/** Changed shortcuts: null for an action without one. */
type Own = Readonly<Partial<Record<ActionId, string | null>>>;

export const useKeys = create<{ readonly own: Own }>()(() => ({ own: {} }));

/** Restores changed shortcuts; invalid ones are ignored. */
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

/** The shortcut of an action; null for none. */
export function keysOf(id: ActionId, own: Own = useKeys.getState().own): string | null {
  const changed = own[id];
  return changed === undefined ? (actionOf(id).keys ?? null) : changed;
}

/** The action of a shortcut. */
export function actionWith(chord: string): ActionId | undefined {
  return actionIds.find((id) => keysOf(id) === chord);
}

/**
 * Changes the shortcut of an action, or removes it. Throws a sentence if it is unavailable. Returns the action that
 * lost it.
 */
export function changeKeys(id: ActionId, chord: string | null): ActionId | undefined {
  if (chord !== null && RESERVED.includes(chord))
    throw new RangeError(`${chord} belongs to the browser, or to copying and pasting. Choose other keys.`);
  const loser = chord === null ? undefined : actionIds.find((other) => other !== id && keysOf(other) === chord);
  const own: Partial<Record<ActionId, string | null>> = { ...useKeys.getState().own, [id]: chord };
  if (loser) own[loser] = null;
  keep(own);
  return loser;
}

/** Restores the default shortcut of an action, and takes it from its current one. */
export function resetKeys(id: ActionId): void {
  const first = actionOf(id).keys ?? null;
  if (first !== null) changeKeys(id, first);
  const { [id]: _, ...own } = useKeys.getState().own;
  keep(own);
}

export const resetAllKeys = (): void => keep({});
