'use client';

import type { NumberValue } from '@maypole/core/declare/params';
import type { NumberPlace } from '@maypole/core/piece/addresses';
import { addKey, moveKeys, pasteKeys, removeKeys } from '@maypole/core/time/keys/edit';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import type { MotionDoc } from '@maypole/core/time/motion';
import type { KeyboardEvent } from 'react';
import { useEditor } from '../state/store';
import { useLaneView } from './lane-view';

/** The key clipboard, shared by all lanes. */
let copied: readonly KeyDoc[] = [];

interface Edited {
  readonly place: NumberPlace;
  readonly motion: MotionDoc | null;
  /** Null if the value is not moved by keys. */
  readonly keys: readonly KeyDoc[] | null;
  readonly adds: number;
  readonly chosen: readonly number[];
  readonly setChosen: (chosen: readonly number[]) => void;
  readonly put: (next: NumberValue, label: string, gesture?: string) => void;
}

/** Edits of the keys of a value, also from the keyboard. */
export function useKeyEdits({ place: { param }, motion, keys, adds, chosen, setChosen, put }: Edited) {
  const frames = useEditor((s) => s.piece.loop.frames);
  const snap = useLaneView((s) => s.snap);
  const onKeys = (next: readonly KeyDoc[], label: string, gesture?: string, marked?: readonly number[]) => {
    const hold = (x: number) => Math.max(param.min, Math.min(param.max, Number(x.toPrecision(9))));
    put({ ...motion!, keys: next.map((k) => ({ ...k, value: hold(k.value) })) }, label, gesture);
    if (marked) setChosen(marked);
  };
  const addHere = () => {
    if (!keys) return;
    const { frame } = useEditor.getState();
    const out = addKey(keys, adds, Math.round(frame) / frames);
    onKeys(out.keys, 'Add a key', undefined, out.chosen);
  };
  const remove = () => {
    if (!keys || chosen.length === 0) return;
    const out = removeKeys(keys, chosen);
    onKeys(out.keys, chosen.length === 1 ? 'Remove a key' : 'Remove keys', undefined, []);
  };

  const keyboard = (e: KeyboardEvent) => {
    if (!keys) return;
    const done = () => {
      e.preventDefault();
      e.stopPropagation();
    };
    const command = e.ctrlKey || e.metaKey;
    const fine = e.shiftKey ? 10 : 1;
    const by = {
      ArrowLeft: [-fine / frames, 0],
      ArrowRight: [fine / frames, 0],
      ArrowUp: [0, fine * param.step],
      ArrowDown: [0, -fine * param.step],
    }[e.key];
    if (by && chosen.length > 0) {
      done();
      const out = moveKeys(keys, chosen, { at: by[0], value: by[1] }, adds, snap ? frames : 0);
      onKeys(out.keys, 'Move keys', 'arrows', out.chosen);
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      done();
      remove();
    } else if (e.key === 'Insert') {
      done();
      addHere();
    } else if (e.key === 'PageDown' || e.key === 'PageUp') {
      done();
      const step = e.key === 'PageDown' ? 1 : -1;
      setChosen([((chosen[0] ?? (step > 0 ? -1 : 0)) + step + keys.length) % keys.length]);
    } else if (e.key === 'Escape' && chosen.length > 0) {
      done();
      setChosen([]);
    } else if (command && e.key.toLowerCase() === 'a') {
      done();
      setChosen(keys.map((_, i) => i));
    } else if (command && e.key.toLowerCase() === 'c' && chosen.length > 0) {
      done();
      copied = chosen.map((i) => keys[i]);
    } else if (command && e.key.toLowerCase() === 'v' && copied.length > 0) {
      done();
      const out = pasteKeys(keys, copied, Math.round(useEditor.getState().frame) / frames, adds);
      onKeys(out.keys, 'Paste keys', undefined, out.chosen);
    }
  };

  return { onKeys, addHere, remove, keyboard };
}
