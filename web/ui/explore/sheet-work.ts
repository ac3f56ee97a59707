import { loopDistance } from '@maypole/core/explore/picture-distance';
import { mixed } from '@maypole/core/explore/mix';
import { alongAxes, variation } from '@maypole/core/explore/variation';
import type { Piece } from '@maypole/core/piece/piece';
import { Kept } from '@/engine/draw/kept';
import { ContactSheetRenderer, type Looked } from '@/engine/draw/contact-sheet';
import { NONE_LEFT, useSheet, varying, type SheetState, type Tile } from './sheet-store';

/** Least pictureDistance between the tiles of a sheet without axes. */
export const APART = 1;
/** Most attempts per tile before similar ones are accepted. */
const TRIES = 2;
/** Number of values that “What matters most” keeps. */
const MOST_TELLING = 8;

/** Status while all tiles are there, but not all loops. */
export const LOOPS = 'Drawing the loops';

/** Kept for a while after a sheet, so that the next one need not compile shaders. */
const drawers = new Kept(() => ContactSheetRenderer.create(), 60_000);

/** Prepares the renderer of a sheet in advance, and keeps it until `coolSheet`. */
export async function warmSheet(piece: Piece): Promise<void> {
  drawers.hold();
  await drawers
    .use(async (drawer) => {
      drawer.setAspect(piece.format.width / piece.format.height);
      await drawer.warm(piece);
    })
    // If it fails, the sheet reports it when it is opened.
    .catch(() => undefined);
}

export const coolSheet = (): void => drawers.letGo();

let run = 0;

/**
 * Draws the sheet with its present settings: first pictures of all tiles in order, nearest first, then their loops.
 * Aborts any drawing under way.
 */
export async function drawSheet(): Promise<void> {
  const mine = ++run;
  const goOn = () => mine === run && useSheet.getState().open;
  const state = useSheet.getState();
  const { base } = state;
  useSheet.setState({ tiles: [], working: 'Drawing', left: NONE_LEFT });
  try {
    await drawers.use(async (drawer) => {
      if (!goOn()) return;
      drawer.setAspect(base.format.width / base.format.height);
      useSheet.setState({ plain: drawer.plain });
      await fill(drawer, state, goOn);
      if (goOn()) useSheet.setState({ working: LOOPS });
      for (const tile of useSheet.getState().tiles) {
        if (!goOn()) return;
        await drawer.rest(tile.piece, tile.strip, goOn);
      }
    });
    if (goOn()) useSheet.setState({ working: null });
  } catch (error) {
    if (goOn())
      useSheet.setState({ working: error instanceof Error ? error.message : 'The sheet cannot be drawn here.' });
  }
}

export function stopSheet(): void {
  run++;
}

async function fill(drawer: ContactSheetRenderer, state: SheetState, goOn: () => boolean): Promise<void> {
  const { base, unwanted, count, way } = state;
  const now = await drawer.look(base);
  if (typeof now === 'string')
    throw new Error('This piece takes too much work for a sheet; switch off its heaviest step first.');
  if (!goOn()) return;
  let id = 0;
  const add = (piece: Piece, looked: Looked, index: number, at?: Tile['at']) => {
    const distance = loopDistance(looked.signatures, now.signatures);
    const tile: Tile = { id: id++, index, piece, ...looked, distance, ...(at ? { at } : {}) };
    useSheet.setState((s) => ({ tiles: [...s.tiles, tile] }));
  };
  const leave = (why: keyof SheetState['left']) =>
    useSheet.setState((s) => ({ left: { ...s.left, [why]: s.left[why] + 1 } }));
  if (way.type === 'axes') {
    for (const [piece, at] of onAxes(state)) {
      const looked = await drawer.look(piece, now.size);
      if (!goOn()) return;
      if (typeof looked === 'string') leave(looked);
      else if (!looked.closes && now.closes) leave('open');
      else add(piece, looked, id, at);
    }
    return;
  }
  add(base, now, -1);
  if (state.throws) {
    for (const index of state.throws) {
      const piece = thrown(state, index);
      const looked = await drawer.look(piece);
      if (!goOn()) return;
      if (typeof looked === 'string') leave(looked);
      else add(piece, looked, index);
    }
    return;
  }
  const spare: { piece: Piece; looked: Looked; index: number }[] = [];
  for (let index = 0; index < count * TRIES && id <= count; index++) {
    const piece = thrown(state, index);
    const looked = await drawer.look(piece, now.size);
    if (!goOn()) return;
    if (typeof looked === 'string') leave(looked);
    else if (!looked.closes && now.closes) leave('open');
    else {
      const others = [...useSheet.getState().tiles.map((t) => t.signatures), ...unwanted];
      const nearest = Math.min(...others.map((o) => loopDistance(o, looked.signatures)));
      if (nearest < APART) {
        leave('alike');
        if (nearest > 0.05) spare.push({ piece, looked, index });
      } else add(piece, looked, index);
    }
  }
  // If little can differ, the sheet is filled with variations that differ a little.
  for (const { piece, looked, index } of spare) {
    if (id > count) break;
    const like = unwanted.some((o) => loopDistance(o, looked.signatures) < APART);
    if (like) continue;
    add(piece, looked, index);
    useSheet.setState((s) => ({ left: { ...s.left, alike: s.left.alike - 1 } }));
  }
}

function thrown(state: SheetState, index: number): Piece {
  const { way, base, seed, reach, count } = state;
  if (way.type === 'mix') return mixed(way.a, way.b, seed, index);
  return variation(base, varying(state), { seed, reach, count }, index);
}

/** Columns and rows for a number of tiles, nearly square. */
export function gridOf(count: number): readonly [number, number] {
  const across = Math.ceil(Math.sqrt(count * 1.5));
  return [across, Math.max(1, Math.round(count / across))];
}

function* onAxes(state: SheetState): Generator<readonly [Piece, readonly [number, number]]> {
  const { way, variables, base, reach, count } = state;
  if (way.type !== 'axes') return;
  const [across, down] = [way.across, way.down].map((key) => variables.find((v) => v.key === key));
  if (!across) return;
  const [columns, rows] = down ? gridOf(count) : [count, 1];
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      const place = [columns > 1 ? x / (columns - 1) : 0.5, rows > 1 ? y / (rows - 1) : 0.5] as const;
      yield [alongAxes(base, [across, down], place, reach), [x, y]];
    }
}

/** Finds the values that change the picture most on their own, and makes them vary. */
export async function chooseTelling(): Promise<void> {
  const mine = ++run;
  const goOn = () => mine === run && useSheet.getState().open;
  const { base, variables, reach, locked } = useSheet.getState();
  await drawers
    .use(async (drawer) => {
      if (!goOn()) return;
      drawer.setAspect(base.format.width / base.format.height);
      const now = await drawer.look(base);
      if (typeof now === 'string') return;
      const found: { key: string; by: number }[] = [];
      const tried = variables.filter((v) => !locked.has(v.key) && v.group !== 'camera');
      for (const [i, v] of tried.entries()) {
        useSheet.setState({ working: `Trying ${i + 1} of ${tried.length} values` });
        let by = 0;
        for (const x of [0.1, 0.9]) {
          const looked = await drawer.look(alongAxes(base, [v, undefined], [x, x], reach), now.size);
          if (!goOn()) return;
          if (typeof looked !== 'string' && (looked.closes || !now.closes))
            by = Math.max(by, loopDistance(now.signatures, looked.signatures));
        }
        found.push({ key: v.key, by });
      }
      found.sort((a, b) => b.by - a.by);
      const telling = found.filter((f) => f.by > 0.5).slice(0, MOST_TELLING);
      if (goOn()) useSheet.setState({ chosen: new Set(telling.map((f) => f.key)), way: { type: 'spread' } });
    })
    .finally(() => mine === run && useSheet.setState({ working: null }));
}
