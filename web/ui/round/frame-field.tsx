'use client';

import { NumberField } from '../fields/number-field';
import { goTo } from '../state/player';
import { useEditor } from '../state/store';

/** The frame that is shown, typed or dragged, a few loops either way. */
export function FrameField() {
  const frames = useEditor((s) => s.piece.loop.frames);
  return (
    <NumberField
      label="Frame"
      value={0}
      live={(s) => s.frame}
      min={-frames * 4}
      max={frames * 4}
      soft={[0, frames]}
      step={1}
      onChange={(v) => goTo(v)}
    />
  );
}
