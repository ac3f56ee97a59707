import type { Params } from '../declare/params';
import { finishParts } from '../finish/parts/index';
import { noiseKinds } from '../noise/kinds/index';
import { outputs } from '../output/index';
import { patterns } from '../pattern/kinds/index';
import { sceneListNames, sceneLists } from '../scene/index';
import { stepGroups, stepKinds } from '../steps/index';
import { motionKinds } from '../time/motions/index';
import { FIELD_RULE, LINE_RULES } from './lines';

/** One declared thing, as the guide shows it. */
export interface Article {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  readonly params: Params;
  /** Lines of the command field that show it. */
  readonly lines?: readonly string[];
  /** The step whose example plays beside it. */
  readonly example?: string;
}

/** A page of the guide, generated from declarations. */
export interface GuidePage {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  readonly articles: readonly Article[];
}

const article = (k: { kind: string; title: string; help: string; params: Params }): Article => ({
  id: k.kind,
  title: k.title,
  help: k.help,
  params: k.params,
});

const STEP_HELP: Readonly<Record<string, string>> = {
  form: 'The body that a ribbon begins with.',
  repeat: 'Makes copies, and lets them differ.',
  curve: 'Works with curves and outlines, or makes bodies of them.',
  detail: 'More faces, fewer faces, smoother faces.',
  deform: 'Moves the points of a form without changing what is joined to what.',
  build: 'Makes new faces, rods and parts of those that are there.',
  solid: 'Works with bodies as if they were solid.',
  place: 'Moves the form as a whole.',
};

/** All generated pages: steps by group, motions, noise, finish, patterns, scene and outputs. */
export const guidePages: readonly GuidePage[] = [
  ...stepGroups.map(({ group, title }) => ({
    id: group,
    title,
    help: STEP_HELP[group] ?? '',
    articles: stepKinds.filter((k) => k.group === group).map((k) => ({ ...article(k), example: k.kind })),
  })),
  {
    id: 'motion',
    title: 'Motions',
    help: 'How a value moves. Press the small drawing beside a value to give it one.',
    articles: motionKinds.map(article),
  },
  {
    id: 'noise',
    title: 'Noise',
    help: 'Kinds of smooth chance. All of them move along closed ways.',
    articles: noiseKinds.map((k) => ({ id: k.kind, title: k.title, help: k.help, params: {} })),
  },
  {
    id: 'finish',
    title: 'Finish',
    help: 'Parts of a finish, switched on one by one.',
    articles: finishParts.all.map(article),
  },
  {
    id: 'patterns',
    title: 'Patterns',
    help: 'What changes a value of a finish from place to place.',
    articles: patterns.all.map(article),
  },
  ...sceneListNames.map((list) => ({
    id: list,
    title: sceneLists[list].title,
    help: 'Part of the scene.',
    articles: sceneLists[list].kinds.all.map(article),
  })),
  {
    id: 'lines',
    title: 'Lines',
    help: 'The command field takes a line that says a thing and its values, shows what it understood, and does it.',
    articles: [...LINE_RULES, FIELD_RULE].map(({ id, title, help, lines }) => ({ id, title, help, params: {}, lines })),
  },
  {
    id: 'outputs',
    title: 'Outputs',
    help: 'What files a loop can become.',
    articles: outputs.all.map(article),
  },
];

export const guidePage = (id: string): GuidePage | undefined => guidePages.find((p) => p.id === id);
