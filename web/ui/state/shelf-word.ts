import { tellGaps } from '../api';
import { verdictOf } from './derived';
import type { EditorState } from './store';

/**
 * Gaps that the shelf should show for what is open, once its shapes are measured and it is saved; null
 * before that, and where the motions alone, which the server knows, say the same.
 */
export function gapsToTell({ save, measure }: Pick<EditorState, 'save' | 'measure'>): number | null {
  if (save !== 'saved' || !measure.proof || (measure.state !== 'shapes' && measure.state !== 'complete')) return null;
  const verdict = verdictOf(measure);
  const gaps = verdict.gaps || verdict.open.length || verdict.turns;
  return gaps === measure.proof.findings.filter((f) => f.kind === 'gap').length ? null : gaps;
}

/** Tells the server, once for each revision, where it differs from what the motions say. */
export function shelfWord(): (state: EditorState) => void {
  let told = '';
  return (state) => {
    const gaps = gapsToTell(state);
    if (gaps === null) return;
    const word = `${state.id}/${state.revision}/${gaps}`;
    if (word === told) return;
    told = word;
    // The shelf then shows what the motions say; the next revision tells it anew.
    tellGaps(state.id, state.revision, gaps).catch(() => undefined);
  };
}
