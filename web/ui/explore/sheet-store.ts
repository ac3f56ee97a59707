import { variablesOf, type Variable, type VariableGroup } from '@maypole/core/explore/variables';
import type { Piece } from '@maypole/core/piece/piece';
import { create } from 'zustand';
import { pause } from '../state/player';
import type { KeptSheet } from '@maypole/core/explore/sheet-settings';
import { leaveSheet, leftSheet, wayOf } from './kept-sheet';
import type { LeftOut, SheetState, Way } from './sheet-state';
import { useEditor } from '../state/store';

export type { LeftOut, SheetState, Tile } from './sheet-state';

export const NONE_LEFT: LeftOut = { alike: 0, open: 0, heavy: 0, size: 0 };

/** Groups that vary by default: those that leave the piece recognisable. */
const USUAL: readonly VariableGroup[] = ['chance', 'noise', 'form', 'copies', 'movement'];

const CLOSED: SheetState = {
  open: false,
  base: {} as Piece,
  variables: [],
  chosen: new Set(),
  locked: new Set(),
  reach: 0.5,
  count: 24,
  seed: 1,
  way: { type: 'spread' },
  tiles: [],
  picked: [],
  throws: null,
  unwanted: [],
  working: null,
  left: NONE_LEFT,
  plain: false,
  trail: [],
};

export const useSheet = create<SheetState>()(() => CLOSED);

/** Settings that decide which tiles are on a sheet. */
const ASKED = ['chosen', 'locked', 'reach', 'count', 'seed', 'way', 'unwanted'] as const;
// Changing a setting of a stored sheet starts a new search.
useSheet.subscribe((now, before) => {
  if (now.throws && now.throws === before.throws && ASKED.some((k) => now[k] !== before[k]))
    useSheet.setState({ throws: null });
});

/** Whether a variable changes a value, and not what is there. */
export const isPlain = (v: Variable) => !/^(Kind|Set-up) of /.test(v.title);

/** Opens a sheet of the present piece, with the settings of its last one in this browser as far as they apply. */
export function openSheet(): void {
  pause();
  const { id, piece } = useEditor.getState();
  const last = useSheet.getState();
  const own = leftSheet(id);
  const before = own ?? last;
  const variables = variablesOf(piece);
  const known = new Set(variables.map((v) => v.key));
  const kept = [...before.chosen].filter((k) => known.has(k));
  const usual = variables.filter((v) => USUAL.includes(v.group) && isPlain(v)).map((v) => v.key);
  const { reach, count, seed, way } = before;
  const axes = own && way.type === 'axes' && known.has(way.across) && (way.down === '' || known.has(way.down));
  useSheet.setState({
    ...last,
    open: true,
    base: piece,
    variables,
    reach,
    count,
    seed,
    chosen: new Set(kept.length > 0 && (own || last.base.name === piece.name) ? kept : usual),
    locked: new Set([...before.locked].filter((k) => known.has(k))),
    way: axes ? way : { type: 'spread' },
    picked: [],
    throws: null,
    unwanted: [],
    trail: [],
  });
}

/** Opens a stored sheet of the piece as it was then. Returns a sentence if that is impossible. */
export function openKeptSheet(base: Piece, kept: KeptSheet): string | null {
  const way = wayOf(kept);
  if (typeof way === 'string') return way;
  pause();
  const { reach, count, seed, throws = null } = kept;
  useSheet.setState({
    ...CLOSED,
    open: true,
    base,
    variables: variablesOf(base),
    chosen: new Set(kept.chosen),
    locked: new Set(kept.locked),
    reach,
    count,
    seed,
    way,
    throws,
  });
  return null;
}

export function closeSheet(): void {
  const now = useSheet.getState();
  if (now.open) leaveSheet(useEditor.getState().id, now);
  useSheet.setState({ open: false, tiles: [], picked: [], throws: null, working: null, trail: [], unwanted: [] });
}

/** The variables that vary now. */
export function varying({ variables, chosen, locked }: SheetState): Variable[] {
  return variables.filter((v) => chosen.has(v.key) && !locked.has(v.key));
}

/** Continues from another piece with a smaller reach; the previous sheet can be returned to. */
export function goOnFrom(base: Piece, way: Way, reach: number): void {
  const { base: old, way: oldWay, reach: oldReach, trail, chosen } = useSheet.getState();
  const variables = variablesOf(base);
  const known = new Set(variables.map((v) => v.key));
  useSheet.setState({
    base,
    way,
    reach,
    variables,
    chosen: new Set([...chosen].filter((k) => known.has(k))),
    picked: [],
    throws: null,
    trail: [...trail, { base: old, way: oldWay, reach: oldReach }].slice(-20),
  });
}

export function goBack(): void {
  const { trail } = useSheet.getState();
  const last = trail.at(-1);
  if (last)
    useSheet.setState({
      ...last,
      variables: variablesOf(last.base),
      picked: [],
      throws: null,
      trail: trail.slice(0, -1),
    });
}
