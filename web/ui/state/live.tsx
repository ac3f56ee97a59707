'use client';

import { useLayoutEffect, useRef, type RefObject } from 'react';
import { useEditor, type EditorState } from './store';

/**
 * Writes what changes with every frame straight into the page. While a loop plays, dozens of words and marks change
 * many times a second; rerendering their components would make megabytes of garbage per frame and take time from the
 * picture.
 *
 * @param read a word or number of the state; it may change with each rendering. Null to stop listening
 * @param write puts it into the element; called after each rendering, and whenever it changes
 * @returns a ref for the element
 *
 * @example
 * const bar = useLive<HTMLDivElement, number>((s) => s.frame, (e, frame) => (e.style.left = `${frame}px`));
 * return <div ref={bar} />;
 */
export function useLive<E extends Element, T extends string | number>(
  read: ((s: EditorState) => T) | null,
  write: (element: E, now: T) => void,
): RefObject<E | null> {
  const ref = useRef<E>(null);
  const latest = useRef<{ read: typeof read; write: typeof write; written?: T }>({ read, write });
  useLayoutEffect(() => {
    if (!read) return;
    const written = read(useEditor.getState());
    latest.current = { read, write, written };
    if (ref.current) write(ref.current, written);
  });
  const live = read !== null;
  useLayoutEffect(() => {
    if (!live) return;
    return useEditor.subscribe((state) => {
      const known = latest.current;
      if (!known.read) return;
      let now: T;
      try {
        now = known.read(state);
      } catch {
        // A component about to unmount may not know the new state; others are updated all the same.
        return;
      }
      if (Object.is(now, known.written) || !ref.current) return;
      known.written = now;
      known.write(ref.current, now);
    });
  }, [live]);
  return ref;
}

const writeText = (element: Element, words: string) => void (element.textContent = words);

/** Text that changes with every frame. */
export function LiveText({ of }: { of: (s: EditorState) => string }) {
  return <span ref={useLive<HTMLSpanElement, string>(of, writeText)} />;
}
