import { LIMITS } from '../declare/limits';
import { formatPath } from './read';
import type { FinishDoc, Item, Piece, RibbonDoc } from './piece';
import { parts } from './schema';
import { writePiece } from './read';
import { sceneListNames } from '../scene/index';
import { ownersOf } from './walk';

/** The first problem a schema finds in a value. */
interface Checked {
  readonly success: boolean;
  readonly error?: { readonly issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[] };
}

/**
 * Why a piece cannot be saved after an edit, in a sentence; null if it can. Asks the schema about everything that is
 * not the same object as before, so that no action can make what the schema refuses.
 *
 * @param before the sound piece before the edit
 */
export function misfitOf(before: Piece, after: Piece): string | null {
  if (before === after) return null;
  return (
    shellMisfit(before, after) ??
    after.ribbons.map((r, i) => ribbonMisfit(before.ribbons?.[i], r)).find((m) => m !== null) ??
    itemsMisfit(before, after) ??
    identifierMisfit(before, after) ??
    sizeMisfit(after)
  );
}

function said(checked: Checked, of: string): string | null {
  if (checked.success) return null;
  const { path, message } = checked.error!.issues[0];
  const where = formatPath(path);
  // A complete sentence, or one that needs its subject.
  return where && /^(Invalid|Too (big|small))/.test(message) ? `${of}: ${where} is not understood.` : message;
}

function shellMisfit(before: Piece, after: Piece): string | null {
  const { ribbons, outputs, scene } = after;
  if (after.name !== before.name || after.loop !== before.loop || after.format !== before.format) {
    const { name, loop, format } = after;
    const found = said(parts.shell.safeParse({ name, loop, format }), 'Piece');
    if (found) return found;
  }
  if (ribbons.length > LIMITS.ribbons && ribbons.length > (before.ribbons?.length ?? 0))
    return `A piece can have at most ${LIMITS.ribbons} ribbons; remove some first.`;
  if (outputs.length > LIMITS.outputs) return `A piece can have at most ${LIMITS.outputs} outputs; remove some first.`;
  for (const name of sceneListNames) {
    if (scene[name] === before.scene?.[name]) continue;
    const found = said(parts.sceneCounts[name].safeParse(scene[name]), 'Scene');
    if (found) return found;
  }
  return null;
}

function ribbonMisfit(before: RibbonDoc | undefined, ribbon: RibbonDoc): string | null {
  if (before === ribbon) return null;
  const { steps, finishes, ...shell } = ribbon;
  const held = { ...shell, steps: steps.map(() => 0), finishes: finishes.map(finishShell) };
  return said(parts.ribbon.safeParse(held), ribbon.name);
}

const finishShell = ({ parts: list, ...shell }: FinishDoc) => ({ ...shell, parts: list.map(() => 0) });

/** Items that are not the same objects as before. */
function itemsMisfit(before: Piece, after: Piece): string | null {
  const known = new Set<Item>(before.ribbons ? ownersOf(before).map((o) => o.item) : []);
  for (const { owner, item, title } of ownersOf(after)) {
    // A pattern is checked with its part, which has changed if it has.
    if (known.has(item) || owner.type === 'pattern') continue;
    const found = said(
      owner.type === 'scene'
        ? parts.scene[sceneListNames.find((n) => after.scene[n].includes(item))!].safeParse(item)
        : parts[owner.type].safeParse(item),
      title,
    );
    if (found) return found;
  }
  return null;
}

const identifiersOf = (piece: Piece): string[] => [
  ...piece.ribbons.flatMap((r) => [r.id, ...r.finishes.map((f) => f.id)]),
  ...ownersOf(piece).map((o) => o.item.id),
];

function identifierMisfit(before: Piece, after: Piece): string | null {
  const all = identifiersOf(after);
  if (new Set(all).size === all.length) return null;
  const known = before.ribbons ? identifiersOf(before) : [];
  return new Set(known).size < known.length
    ? null
    : 'Two things would have the same identifier; this is a fault of Maypole, and nothing was changed.';
}

/** Upper bound of an item's bytes as text; cached, since items are immutable. */
const sizes = new WeakMap<Item, number>();

function sizeOf(item: Item): number {
  let size = sizes.get(item);
  if (size === undefined) {
    const text = JSON.stringify(item, null, 2);
    // An item is indented by at most 12 blanks; letters beyond ASCII have at most 4 bytes.
    const lines = text.split('\n').length;
    // eslint-disable-next-line no-control-regex
    const beyond = text.replace(/[\x00-\x7f]/g, '').length;
    sizes.set(item, (size = text.length + 12 * lines + 3 * beyond));
  }
  return size;
}

function sizeMisfit(piece: Piece): string | null {
  // Names, brackets and the like are far below a kilobyte each.
  const most = ownersOf(piece).reduce((n, o) => n + sizeOf(o.item), 0) + 1000 * (piece.ribbons.length * 4 + 10);
  if (most <= LIMITS.document || utf8Length(writePiece(piece)) <= LIMITS.document) return null;
  return `The piece would be larger than ${LIMITS.document / 1024 / 1024} MB, the most that is kept; remove ribbons, steps or keys first.`;
}

function utf8Length(text: string): number {
  let n = 0;
  for (const letter of text) {
    const code = letter.codePointAt(0)!;
    n += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return n;
}
