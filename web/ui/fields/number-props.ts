import type { Address } from '@maypole/core/piece/addresses';
import type { EditorState } from '../state/store';

/** What a number field shows, and what it may change. */
export interface NumberProps {
  readonly label: string;
  readonly value: number;
  /** If a motion drives it: its value at each frame, instead of `value`. */
  readonly live?: (s: EditorState) => number;
  readonly unit?: string;
  /** The unit is shown beside the field. */
  readonly noUnit?: boolean;
  readonly min: number;
  readonly max: number;
  readonly soft: readonly [number, number];
  readonly step: number;
  readonly integer?: boolean;
  /** Shown but not editable here: a motion drives it. */
  readonly driven?: boolean;
  /** Several values are edited at once and differ. */
  readonly mixed?: boolean;
  /** `gesture` is the same for all changes of a drag; `joined` are other values that it sets alike. */
  readonly onChange: (value: number, gesture: string, joined: readonly Address[]) => void;
  readonly onDriven?: () => void;
  /** Takes what is typed and may be more than a number; says what is wrong with it, null if it was taken. */
  readonly onWords?: (text: string) => string | null | undefined;
  /** What it sets; a drag that begins downwards or upwards sets the fields that it passes alike. */
  readonly addresses?: readonly Address[];
}
