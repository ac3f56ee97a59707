import type { DragEvent } from 'react';
import { withFinishLook, type LookKind } from '@maypole/core/looks/look';
import type { Piece } from '@maypole/core/piece/piece';
import { useEditor } from '../state/store';
import { ribbonAt, type Size } from '../picture/pick-point';
import { tell } from '../parts/toasts';
import { takeLook } from './take-look';

/** A kept look being dragged to the picture. */
interface Dragged {
  readonly kind: LookKind;
  readonly look: Piece;
  readonly name: string;
  /** What a click in the list does. */
  readonly use: () => void;
}

let dragged: Dragged | null = null;

/** For what can be dragged onto the picture. */
export function draggable(what: () => Dragged | null) {
  return {
    draggable: true,
    onDragStart: (event: DragEvent) => {
      dragged = what();
      if (!dragged) return event.preventDefault();
      event.dataTransfer.effectAllowed = 'copy';
      // Some browsers do not start a drag without data.
      event.dataTransfer.setData('text/plain', dragged.name);
    },
    onDragEnd: () => {
      dragged = null;
    },
  };
}

/** Applies a kept finish to a ribbon. */
export function wearKept(ribbon: string, look: Piece, name: string): void {
  takeLook(`Finish: ${name}`, (piece) => withFinishLook(piece, ribbon, look));
}

/** Drop handlers of the picture: a finish goes to the form under the pointer, everything else to the scene. */
export function takesLooks(size: Size) {
  return {
    onDragOver: (event: DragEvent) => {
      if (dragged) event.preventDefault();
    },
    onDrop: (event: DragEvent) => {
      const what = dragged;
      if (!what) return;
      event.preventDefault();
      dragged = null;
      if (what.kind !== 'finish') return what.use();
      const box = event.currentTarget.getBoundingClientRect();
      const ribbon = ribbonAt(event.clientX - box.left, event.clientY - box.top, size);
      if (!ribbon) return tell('Nothing there. Drop a finish on a form.');
      useEditor.setState({ ribbonId: ribbon });
      wearKept(ribbon, what.look, what.name);
    },
  };
}
