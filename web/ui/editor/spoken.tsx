'use client';

import { VisuallyHidden } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { useEditor } from '../state/store';

/** An edit and a selection within so many milliseconds are announced together. */
const TOGETHER = 300;

/** Announces edits, undo and selection to screen readers: much of it shows only in the picture. */
export function Spoken() {
  const [words, setWords] = useState('');
  useEffect(() => {
    let edited = { words: '', at: -Infinity };
    const sayEdit = (text: string) => {
      edited = { words: `${text}. `, at: performance.now() };
      setWords(text);
    };
    return useEditor.subscribe((now, before) => {
      const { past, future } = now.history;
      if (now.history !== before.history) {
        const [label, undone] = [past.at(-1)?.label, future[0]?.label];
        if (future.length > before.history.future.length) sayEdit(`Undone: ${undone}`);
        else if (future.length < before.history.future.length && past.length > before.history.past.length)
          sayEdit(`Redone: ${label}`);
        else if (label !== undefined) sayEdit(label);
      } else if (now.ribbonId !== before.ribbonId) {
        const ribbon = now.piece.ribbons.find((r) => r.id === now.ribbonId);
        // An edit that selects another ribbon is announced with it.
        const first = performance.now() - edited.at < TOGETHER ? edited.words : '';
        if (ribbon) setWords(`${first}Ribbon ${ribbon.name}, ${ribbon.steps.length} steps`);
      }
    });
  }, []);
  return (
    <VisuallyHidden role="status" data-testid="spoken">
      {words}
    </VisuallyHidden>
  );
}
