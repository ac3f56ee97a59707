import { walkOf, type Walk } from '@maypole/core/guide/walks';
import { create } from 'zustand';
import { dropText, keepText, keptJson } from '../state/browser-store';

const KEPT = 'maypole-walk';

interface WalkState {
  readonly walk: Walk | null;
  /** The piece of the walk. */
  readonly piece: string;
  /** Index of the present stop. */
  readonly at: number;
}

const NONE: WalkState = { walk: null, piece: '', at: 0 };

export const useWalk = create<WalkState>()(() => NONE);

const keep = () => {
  const { walk, piece, at } = useWalk.getState();
  if (walk) keepText(KEPT, JSON.stringify({ walk: walk.id, piece, at }), 'session');
  else dropText(KEPT, 'session');
};

export function beginWalk(id: string, piece: string): void {
  useWalk.setState({ walk: walkOf(id) ?? null, piece, at: 0 });
  keep();
}

/** Continues this tab's walk if it belongs to this piece. */
export function resumeWalk(piece: string): void {
  const kept = keptJson(KEPT, {}, 'session') as { walk?: unknown; piece?: unknown; at?: unknown };
  const walk = typeof kept.walk === 'string' && kept.piece === piece ? walkOf(kept.walk) : undefined;
  const at = typeof kept.at === 'number' && walk?.stops[kept.at] ? kept.at : 0;
  useWalk.setState(walk ? { walk, piece, at } : NONE);
}

export function goOn(): void {
  const { walk, at } = useWalk.getState();
  if (walk && at + 1 < walk.stops.length) useWalk.setState({ at: at + 1 });
  else useWalk.setState(NONE);
  keep();
}

export function leaveWalk(): void {
  useWalk.setState(NONE);
  keep();
}
