import { tellGaps } from '../api';
import { verdictOf } from './derived';
import type { EditorState } from './store';

/**
 * Gaps for the shelf, once shapes are measured and the piece is saved; null before, and if the motions alone, which the
 * server knows, say the same.
 */
export function gapsToTell({ save, measure }: Pick<EditorState, 'save' | 'measure'>): number | null {
  if (save !== 'saved' || !measure.proof || (measure.state !== 'shapes' && measure.state !== 'complete')) return null;
  const verdict = verdictOf(measure);
  const gaps = verdict.gaps || verdict.open.length || verdict.turns;
  return gaps === measure.proof.findings.filter((f) => f.kind === 'gap').length ? null : gaps;
}

/** Reports to the server, once per revision, what differs from the motions alone. */
export function shelfWord(): (state: EditorState) => void {
  let told = '';
  return (state) => {
    const gaps = gapsToTell(state);
    if (gaps === null) return;
    const word = `${state.id}/${state.revision}/${gaps}`;
    if (word === told) return;
    told = word;
    // The shelf then shows what the motions say; the next revision reports it again.
    tellGaps(state.id, state.revision, gaps).catch(() => undefined);
  };
}
