import { readsNow } from '../declare/reads';
import { isShown } from '../declare/shown';
import { evaluateValues } from '../time/values';
import { patterns } from '../pattern/kinds/index';
import { stepKind } from '../steps/index';
import { isMoving } from '../time/value';
import type { Owner } from './addresses';
import { linkPiece, ribbonsNamed } from './link';
import type { Piece } from './piece';
import { ownerKey } from './addresses';
import { ownersOf } from './walk';

/** Something that moves though its value is constant: a count of turns, a rate, or a step that moves by nature. */
export interface SelfMoving {
  readonly key: string;
  readonly owner: Owner;
  /** The value that makes it move; absent if the whole step does. */
  readonly param?: string;
  /** "Spin turns", "Stream". */
  readonly title: string;
  /** "Spin" and "Turns"; the second is empty where the whole step moves. */
  readonly of: string;
  readonly name: string;
  readonly place: string;
  readonly colour: string;
  /** Steady turns, a rate of change, both, or neither. */
  readonly how: 'turns' | 'noise' | 'step';
  readonly amount: number;
  /** "1 turn", "0.8 a loop". */
  readonly words: string;
}

/** Rates that a moving value cannot show, since they are what moves. */
function wordsOf(how: SelfMoving['how'], amount: number): string {
  const n = `${Number(amount.toPrecision(3))}`;
  return how === 'turns' ? `${n} a loop` : how === 'noise' ? `rate ${n}` : 'by itself';
}

/**
 * Everything in a piece that moves without a motion: turns and travels, noise with a rate, streams, journeys and
 * rolling bodies.
 */
export function selfMovingOf(piece: Piece): SelfMoving[] {
  const used = inUse(piece);
  const clock = { frame: 0, frames: piece.loop.frames };
  return ownersOf(linkPiece(piece)).flatMap(({ owner, item, params, title, place, ribbon }): SelfMoving[] => {
    if ((owner.type !== 'step' && owner.type !== 'pattern') || !item.on || !ribbon || !used.has(ribbon.id)) return [];
    if (owner.type === 'pattern' && !ribbon.on) return [];
    const values = evaluateValues(params, item.values, clock);
    const kind = owner.type === 'step' ? stepKind(item.kind) : patterns.get(item.kind);
    const itself = readsNow(kind.reads, 'clock', values);
    if (!itself) return [];
    const about = { owner, of: title, name: '', place, colour: ribbon.colour };
    const one = (param: string, how: 'turns' | 'noise', amount: number): SelfMoving => {
      const label = params[param].title.toLowerCase();
      return {
        ...about,
        key: `${ownerKey(owner)}/${param}`,
        param,
        title: `${title} ${label}`,
        name: params[param].title,
        how,
        amount,
        words: wordsOf(how, amount),
      };
    };
    const found = Object.entries(params).flatMap(([name, p]): SelfMoving[] => {
      const x = values[name];
      if (
        p.type !== 'number' ||
        typeof x !== 'number' ||
        x === 0 ||
        isMoving(item.values[name]) ||
        !isShown(params, values, name)
      )
        return [];
      if (p.counts) return [one(name, 'turns', x)];
      return p.unit === '/loop' && /rate/i.test(name) ? [one(name, 'noise', x)] : [];
    });
    return found.length > 0
      ? found
      : [{ ...about, key: ownerKey(owner), title, how: 'step', amount: 1, words: wordsOf('step', 1) }];
  });
}

/** Visible ribbons, and hidden ones that others use as cutters and paths. */
function inUse(piece: Piece): ReadonlySet<string> {
  const used = new Set(piece.ribbons.filter((r) => r.on).map((r) => r.id));
  // Iterating a growing set visits what is added.
  for (const id of used)
    for (const step of piece.ribbons.find((r) => r.id === id)?.steps ?? [])
      if (step.on) for (const [, named] of ribbonsNamed(step)) used.add(named);
  return used;
}
