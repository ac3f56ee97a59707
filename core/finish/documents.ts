import { newId, newItem, type PartDoc } from '../declare/items';
import { finishParts } from './parts/index';
import type { FaceKind } from './surface';

/** Parts that every finish has. */
export const ALWAYS: ReadonlySet<string> = new Set(['base', 'metal']);

/** The finish of a face kind: parts, each of which sets some channels of its surface. */
export interface FinishDoc {
  readonly id: string;
  readonly of: FaceKind;
  readonly on: boolean;
  readonly parts: readonly PartDoc[];
}

/** Base colours of new finishes of further face kinds. */
const FACE_COLOURS: Partial<Record<FaceKind, string>> = { inside: '#F1EDE4', rods: '#24262B', joints: '#E8A317' };

/** A new finish for a face kind. */
export function newFinish(of: FaceKind = 'main', colour = FACE_COLOURS[of]): FinishDoc {
  const parts = finishParts.all
    .filter((p) => ALWAYS.has(p.kind))
    .map((p) => newItem(p, p.kind === 'base' && colour ? { colour } : {}));
  return { id: newId(), of, on: true, parts };
}
