import { isShown } from '../declare/shown';
import type { Param, Params } from '../declare/params';
import { ownerKey, type Owner } from '../piece/addresses';
import type { Piece } from '../piece/piece';
import { ownersOf } from '../piece/walk';
import type { Findable } from './search';
import { TRADE_WORDS } from './trade-words';

/** A value of a piece, as it can be found: numbers, colours, choices and switches alike. */
export interface Setting extends Findable {
  /** `value:KIND.PARAM`. */
  readonly id: string;
  readonly owner: Owner;
  readonly param: string;
}

/** Titles of values and of what can be chosen for them; regions and sources, which most steps have, are left out. */
export function holdsOf(params: Params): string {
  return Object.values(params)
    .filter((p) => !p.more && !p.sparse)
    .flatMap((p) => [p.title, ...choicesOf(p)])
    .join(' ');
}

const choicesOf = (param: Param): string[] => (param.type === 'choice' ? param.options.map((o) => o.title) : []);

/** Every value that is shown for a piece, in the order of the screen. */
export function settingsIn(piece: Piece): Setting[] {
  return ownersOf(piece)
    .filter(({ owner }) => owner.type !== 'output')
    .flatMap(({ owner, item, params, title, place }) =>
      Object.entries(params)
        .filter(([name]) => isShown(params, item.values, name))
        .map(([name, param]) => ({
          id: `value:${item.kind}.${name}`,
          owner,
          param: name,
          title: `${title} ${param.title.toLowerCase()}, ${place}`,
          help: param.help,
          also: TRADE_WORDS[`value:${item.kind}.${name}`],
          holds: choicesOf(param).join(' '),
        })),
    );
}

/** Key of a setting, for lists. */
export const settingKey = ({ owner, param }: Pick<Setting, 'owner' | 'param'>): string => `${ownerKey(owner)}/${param}`;
