import { FRAME_SETTINGS } from '@maypole/core/trace/paths/frame-settings';
import { renderSettings } from '@maypole/core/output/render-settings';
import { create } from 'zustand';
import { pause } from '../state/player';
import { useEditor, type EditorState } from '../state/store';
import { tryTrueLight } from '../state/true-light';

type Look = Pick<EditorState, 'light' | 'mode' | 'detail' | 'subframes'>;

/** View settings to return to; null if no frame is being tried. */
export const useTrying = create<{ readonly before: Look | null }>(() => ({ before: null }));

/** Shows the frame at the playhead with the light, samples and detail of delivery, and follows changes to them. */
export function beginTrying(): void {
  if (useTrying.getState().before) return;
  pause();
  const { light, mode, detail, subframes } = useEditor.getState();
  useTrying.setState({ before: { light, mode, detail, subframes } });
  show();
}

/** Returns to the previous view settings. */
export function endTrying(): void {
  const { before } = useTrying.getState();
  if (!before) return;
  useTrying.setState({ before: null });
  tryTrueLight(null);
  useEditor.setState(before);
}

/** The view that was set; changing it otherwise ends trying. */
let asked: Look;

function ask(look: Look): void {
  asked = look;
  useEditor.setState(look);
}

function show(): void {
  const s = renderSettings(useEditor.getState().piece.render.values);
  const { samples, error, denoise, detail } = s;
  if (s.light === 'true') {
    const { minSamples, bounces, fireflyClamp } = FRAME_SETTINGS;
    tryTrueLight({
      least: Math.min(minSamples, samples),
      most: samples,
      error,
      denoise,
      bounces,
      brightest: fireflyClamp,
    });
    ask({ light: 'true', mode: 'shaded', detail, subframes: null });
  } else {
    tryTrueLight(null);
    ask({ light: 'quick', mode: s.look, detail, subframes: s.subframes });
  }
}

useEditor.subscribe((now, was) => {
  if (!useTrying.getState().before) return;
  if (now.id !== was.id || now.drawer !== 'deliver') return endTrying();
  const other = (['light', 'mode', 'detail', 'subframes'] as const).some((k) => now[k] !== asked[k]);
  if (other) {
    useTrying.setState({ before: null });
    tryTrueLight(null);
  } else if (now.piece.render !== was.piece.render) show();
});
