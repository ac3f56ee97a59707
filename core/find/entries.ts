import { finishParts } from '../finish/parts/index';
import { guidePages } from '../guide/pages';
import { outputs } from '../output/index';
import { sceneListNames, sceneLists } from '../scene/index';
import { stepKinds } from '../steps/index';
import { actionIds, actionOf, type ActionId } from './actions';
import type { Findable } from './search';
import { ANSWERS } from './answers';
import { holdsOf } from './settings';
import { TRADE_WORDS } from './trade-words';

/** What the command field offers whatever the piece. */
export interface Entry extends Findable {
  readonly id: string;
  /** Its category, in a word. */
  readonly sort: string;
  readonly does:
    | { readonly type: 'action'; readonly action: ActionId }
    | { readonly type: 'step'; readonly kind: string; readonly form: boolean }
    | { readonly type: 'scene'; readonly list: (typeof sceneListNames)[number]; readonly kind: string }
    | { readonly type: 'part'; readonly kind: string }
    | { readonly type: 'output'; readonly kind: string }
    | { readonly type: 'help'; readonly path: string }
    /** What Maypole does not have: `help` names what comes nearest, and `leads` goes there. */
    | { readonly type: 'answer'; readonly leads: string };
  readonly keys?: string;
}

const entry = (e: Omit<Entry, 'also'>): Entry => ({ ...e, also: TRADE_WORDS[e.id] });

/** Actions, steps, lights and the rest of the scene, parts of a finish and outputs, from their declarations. */
export const entries: readonly Entry[] = [
  ...actionIds.map((action) => {
    const { title, help, keys } = actionOf(action);
    return entry({
      id: `do:${action}`,
      sort: 'Do',
      title,
      help,
      does: { type: 'action', action },
      ...(keys ? { keys } : {}),
    });
  }),
  ...stepKinds.map((k) => {
    const form = k.group === 'form';
    const title = form ? `New ${k.title.toLowerCase()}` : k.group === 'repeat' ? `Repeat: ${k.title}` : k.title;
    return entry({
      id: `step:${k.kind}`,
      sort: form ? 'Form' : 'Step',
      title,
      help: k.help,
      does: { type: 'step', kind: k.kind, form },
      holds: holdsOf(k.params),
    });
  }),
  ...sceneListNames
    .filter((list) => list !== 'cameras')
    .flatMap((list) =>
      sceneLists[list].kinds.all.map((k) =>
        entry({
          id: `${list}:${k.kind}`,
          sort: sceneLists[list].title,
          title: k.title,
          help: k.help,
          does: { type: 'scene', list, kind: k.kind },
          holds: holdsOf(k.params),
        }),
      ),
    ),
  ...finishParts.all.map((p) =>
    entry({
      id: `part:${p.kind}`,
      sort: 'Finish',
      title: p.title,
      help: p.help,
      does: { type: 'part', kind: p.kind },
      holds: holdsOf(p.params),
    }),
  ),
  ...outputs.all.map((o) =>
    entry({
      id: `output:${o.kind}`,
      sort: 'Output',
      title: o.title,
      help: o.help,
      does: { type: 'output', kind: o.kind },
      holds: holdsOf(o.params),
    }),
  ),
  ...guidePages.flatMap((page) => [
    entry({
      id: `help:${page.id}`,
      sort: 'Guide',
      title: `Guide: ${page.title}`,
      help: page.help,
      does: { type: 'help', path: `/guide/${page.id}` },
    }),
    ...page.articles.map((a) =>
      entry({
        id: `help:${page.id}/${a.id}`,
        sort: 'Guide',
        title: `About ${a.title}`,
        help: a.help,
        does: { type: 'help', path: `/guide/${page.id}#${a.id}` },
      }),
    ),
  ]),
  ...ANSWERS.map(({ id, title, help, also, leads }) => ({
    id: `answer:${id}`,
    sort: 'Not here',
    title,
    help,
    also,
    does: { type: 'answer', leads } as const,
  })),
];

/** An entry by its identifier. Throws RangeError if there is none. */
export function entryOf(id: string): Entry {
  const found = entries.find((e) => e.id === id);
  if (!found) throw new RangeError(`There is no entry “${id}”.`);
  return found;
}
