import type { RibbonDoc } from '@maypole/core/piece/piece';
import { useEffect, useState } from 'react';
import type { RibbonGeometry } from '@/engine/evaluate/loop-cache';
import type { Readiness } from '@/engine/engine';
import { session } from './session';
import { useEditor } from './store';

/** Calls back at most once per refresh while shapes arrive. */
function onShapes(callback: () => void): () => void {
  let asked = 0;
  let stop: (() => void) | undefined;
  const soon = () => {
    if (!asked)
      asked = requestAnimationFrame(() => {
        asked = 0;
        callback();
      });
  };
  // The session starts in an effect of the page, after those of its parts.
  const timer = setTimeout(() => {
    stop = session()?.engine.subscribe(soon);
    callback();
  });
  return () => {
    clearTimeout(timer);
    cancelAnimationFrame(asked);
    stop?.();
  };
}

/** The newest shape of a ribbon at the playhead; the last known one while a new one is made. */
export function useGeometry(ribbon: RibbonDoc): RibbonGeometry | undefined {
  const [geometry, setGeometry] = useState<RibbonGeometry>();
  useEffect(
    () =>
      onShapes(() => {
        const now = session()?.engine.geometry(ribbon, useEditor.getState().frame);
        // Only what the panel shows matters here: faces and problems.
        if (now)
          setGeometry((old) =>
            old &&
            facesOf(old) === facesOf(now) &&
            sameNotes(old, now) &&
            old.problems.length === now.problems.length &&
            old.problems.every((p, i) => p.message === now.problems[i].message)
              ? old
              : now,
          );
      }),
    [ribbon],
  );
  return geometry;
}

/** Visible faces, those of copies as often as they occur. */
export function facesOf({ parts }: RibbonGeometry): number {
  return parts.reduce((sum, p) => sum + p.topology.faces * (p.instances ? p.instances.numbers.length : 1), 0);
}

function sameNotes(a: RibbonGeometry, b: RibbonGeometry): boolean {
  return (
    a.notes.length === b.notes.length &&
    a.notes.every(
      (n, i) =>
        n.step === b.notes[i].step &&
        n.copies === b.notes[i].copies &&
        n.shapes === b.notes[i].shapes &&
        n.faces === b.notes[i].faces,
    )
  );
}

const NONE: Readiness = { ready: [], count: 0, full: false, failed: 0, slow: 0, stopped: 0 };

/** How much of the loop is evaluated. */
export function useReadiness(): Readiness {
  const [readiness, setReadiness] = useState(NONE);
  useEffect(() => onShapes(() => setReadiness(session()?.engine.getReadiness() ?? NONE)), []);
  return readiness;
}
