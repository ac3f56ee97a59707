import type { NumberValue } from '@maypole/core/declare/params';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import type { KeyboardEvent } from 'react';
import type { CurveBox } from './curve-geometry';

/** What the canvas shows and may change. */
export interface CanvasProps {
  readonly box: CurveBox;
  readonly frames: number;
  readonly colour: string;
  readonly title: string;
  /** The whole value, with layers and timing. */
  readonly total: NumberValue;
  /** Keys, if keys move the value. */
  readonly keys: readonly KeyDoc[] | null;
  readonly adds: number;
  readonly chosen: readonly number[];
  readonly snap: boolean;
  readonly preview?: NumberValue;
  readonly onChoose: (chosen: readonly number[]) => void;
  readonly onKeys: (keys: readonly KeyDoc[], label: string, gesture?: string, chosen?: readonly number[]) => void;
  readonly onKeyboard: (event: KeyboardEvent) => void;
  readonly onDragging: (dragging: boolean) => void;
}
