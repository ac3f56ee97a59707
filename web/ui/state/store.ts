import { setPairedValue } from '@maypole/core/piece/pair';
import type { Address } from '@maypole/core/piece/addresses';
import { clampPiece } from '@maypole/core/piece/clamp';
import { misfitOf } from '@maypole/core/piece/misfit';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import type { StoredValue } from '@maypole/core/declare/params';
import type { Detail } from '@maypole/core/steps/step';
import { create } from 'zustand';
import type { Around, Conflict, Saved } from '@/contract/pieces';
import { NOT_MEASURED, type SeamMeasure } from '@/engine/evaluate/seam-watch';
import type { ViewMode } from '@/view/stage/frame';
import { tellTrouble } from '../parts/toasts';
import { noteFocusing } from './focusing';
import { NO_HISTORY, record, redo, undo, type History } from './undo';

export type SaveState = 'saved' | 'waiting' | 'saving' | 'offline' | 'full' | 'signed-out' | 'refused' | 'conflict';
export type Drawer = 'seam' | 'scene' | 'deliver' | 'history' | null;

export interface EditorState {
  readonly id: string;
  readonly piece: Piece;
  /** Revision on the server that the piece is based on. */
  readonly revision: number;
  readonly save: SaveState;
  /** Opened read-only: it can be tried and changed, but is not saved. */
  readonly readOnly: boolean;
  /** Why the last save was refused or failed, in words; null if it succeeded. */
  readonly saveTrouble: string | null;
  /** The other version after a conflict, the number ours was kept under, and the base of ours. */
  readonly conflict: (Pick<Conflict, 'head' | 'kept' | 'saved'> & { readonly basedOn: number }) | null;
  /** Who else has the piece open, and what was saved elsewhere since it was opened here. */
  readonly around: Around['others'];
  readonly newer: (Saved & { readonly revision: number }) | null;
  readonly history: History;
  readonly ribbonId: string | null;
  readonly openSteps: Readonly<Record<string, boolean>>;
  readonly detail: Detail;
  readonly mode: ViewMode;
  /** Light of the still picture: the graphics card's, or the path tracer's. */
  readonly light: 'quick' | 'true';
  /** Sub-frames of a still picture in quick light; null for as many as its contents need. */
  readonly subframes: number | null;
  /** Unwrapped: N is a frame of its own here. */
  readonly frame: number;
  readonly playing: boolean;
  /** Actual playback rate in frames per second; null while still. */
  readonly rate: number | null;
  readonly drawer: Drawer;
  readonly measure: SeamMeasure;
  /** The value whose motion is open, and the anchor of its popover. */
  readonly motionOf: Address | null;
  /** Ribbons selected besides `ribbonId`, and steps selected to be edited together. */
  readonly alsoRibbons: readonly string[];
  readonly stepsTogether: readonly string[];
  /** The step whose handles are shown in the picture. */
  readonly held: string | null;
  /** What the next click on a form in the picture is for. */
  /** Focus is being set, and so shown. */
  readonly focusing: boolean;
  readonly pick: 'focus' | { readonly light: string } | null;
  /** The copy selected in the picture. */
  readonly copy: { readonly ribbon: string; readonly number: number } | null;
  /** The lane open for editing, by the key of its address. */
  readonly openLane: string | null;
  /** A preview of what a highlighted change would make of a value. */
  readonly preview: { readonly key: string; readonly value: StoredValue } | null;
}

interface Actions {
  open(id: string, piece: Piece, revision: number): void;
  /**
   * Replaces the piece; edits with the same `merge` key in quick succession count as one. An edit that could not be
   * saved is not made, and the reason is shown.
   *
   * @returns whether anything was changed
   */
  edit(label: string, change: (piece: Piece) => Piece, merge?: string): boolean;
  editRibbon(label: string, ribbonId: string, change: (ribbon: RibbonDoc) => RibbonDoc, merge?: string): boolean;
  setValue(label: string, address: Address, value: StoredValue, merge?: string): void;
  /** Sets the same value in several places, as one edit. */
  setValues(label: string, addresses: readonly Address[], value: StoredValue, merge?: string): void;
  undo(): void;
  redo(): void;
  set(part: Partial<EditorState>): void;
}

const NOTHING = {} as Piece;

/** The last message, and when: a drag causes the same one again and again. */
let told = { words: '', at: 0 };
function tellOnce(words: string): void {
  if (told.words !== words || Date.now() - told.at > 3000) tellTrouble(words);
  told = { words, at: Date.now() };
}

export const useEditor = create<EditorState & Actions>()((set, get) => ({
  id: '',
  piece: NOTHING,
  revision: 0,
  save: 'saved',
  readOnly: false,
  saveTrouble: null,
  conflict: null,
  around: [],
  newer: null,
  history: NO_HISTORY,
  ribbonId: null,
  openSteps: {},
  detail: 'draft',
  mode: 'shaded',
  light: 'quick',
  subframes: null,
  frame: 0,
  playing: false,
  rate: null,
  drawer: null,
  measure: NOT_MEASURED,
  motionOf: null,
  alsoRibbons: [],
  stepsTogether: [],
  openLane: null,
  held: null,
  focusing: false,
  pick: null,
  copy: null,
  preview: null,

  open(id, piece, revision) {
    const first = piece.ribbons[0];
    set({
      id,
      piece,
      revision,
      save: 'saved',
      saveTrouble: null,
      conflict: null,
      newer: null,
      history: NO_HISTORY,
      frame: 0,
      playing: false,
      rate: null,
      motionOf: null,
      alsoRibbons: [],
      stepsTogether: [],
      openLane: null,
      held: null,
      pick: null,
      copy: null,
      preview: null,
      ribbonId: first?.id ?? null,
      openSteps: Object.fromEntries(first ? first.steps.slice(0, 2).map((s) => [s.id, true]) : []),
    });
  },

  edit(label, change, merge) {
    const { piece, history } = get();
    const changed = change(piece);
    if (changed === piece) return false;
    // Whatever made the edit, the result can be saved.
    const next = clampPiece(piece, changed);
    if (next === piece) return false;
    const misfit = misfitOf(piece, next);
    if (misfit) {
      tellOnce(misfit);
      return false;
    }
    set({
      piece: next,
      history: record(history, piece, label, merge, Date.now()),
      save: get().save === 'conflict' ? 'conflict' : 'waiting',
    });
    if (!next.ribbons.some((r) => r.id === get().ribbonId)) set({ ribbonId: next.ribbons[0]?.id ?? null });
    return true;
  },

  editRibbon(label, ribbonId, change, merge) {
    return get().edit(
      label,
      (piece) => {
        const ribbons = piece.ribbons.map((r) => (r.id === ribbonId ? change(r) : r));
        // An edit that changes nothing must not become an undo step.
        return ribbons.every((r, i) => r === piece.ribbons[i]) ? piece : { ...piece, ribbons };
      },
      merge,
    );
  },

  setValue(label, address, value, merge) {
    get().setValues(label, [address], value, merge);
  },

  setValues(label, addresses, value, merge) {
    noteFocusing(get().piece, addresses, (focusing) => set({ focusing }));
    get().edit(label, (piece) => addresses.reduce((p, address) => setPairedValue(p, address, value), piece), merge);
  },

  undo() {
    const { history, piece } = get();
    const back = undo(history, piece);
    if (back) step(set, get, back);
  },

  redo() {
    const { history, piece } = get();
    const forth = redo(history, piece);
    if (forth) step(set, get, forth);
  },

  set: (part) => set(part),
}));

function step(
  set: (part: Partial<EditorState>) => void,
  get: () => EditorState,
  to: { piece: Piece; history: History },
): void {
  const { ribbonId, save } = get();
  const kept = to.piece.ribbons.some((r) => r.id === ribbonId);
  set({
    piece: to.piece,
    history: to.history,
    save: save === 'conflict' ? save : 'waiting',
    ribbonId: kept ? ribbonId : (to.piece.ribbons.at(-1)?.id ?? null),
  });
}

/** The selected ribbon. */
export function useRibbon(): RibbonDoc | undefined {
  return useEditor((s) => s.piece.ribbons.find((r) => r.id === s.ribbonId));
}
