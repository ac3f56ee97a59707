import { z } from 'zod';
import { isKeepable, LIMITS } from '../declare/limits';
import type { Params } from '../declare/params';
import type { Declared } from '../declare/registry';
import { shownJson } from '../declare/json-words';
import { finishParts } from '../finish/parts/index';
import { faceKinds } from '../finish/surface';
import { channelOf } from '../finish/part';
import { outputs } from '../output/index';
import { renderings } from '../output/rendering';
import { patterns as patternKinds } from '../pattern/kinds/index';
import { layerParams } from '../pattern/layer';
import { sceneListNames, sceneLists, type SceneList } from '../scene/index';
import { steps } from '../steps/index';
import { MAX_FPS, MAX_FRAMES, MIN_FPS } from '../time/loop';
import { MAX_CHANCE, PIECE_VERSION, type Values } from './piece';
import { valuesSchema } from './value-schema';

// Compiling validators needs `new Function`, which a strict content security policy forbids.
z.config({ jitless: true });

const wants = (what: string) => ({
  error: (issue: { input?: unknown }) =>
    `${issue.input === undefined ? 'Nothing' : shownJson(issue.input, 40)} stands where ${what} belongs.`,
});
const text = (what: string, max: number) =>
  z
    .string(wants(what))
    .max(max, `This ${what} is longer than ${max} characters; shorten it.`)
    .refine(isKeepable, `This ${what} holds a character that no text can have (U+0000, or half of one); take it out.`);
const whole = (what: string, min: number, max: number) =>
  z
    .number(wants(what))
    .int(`The ${what} must be a whole number.`)
    .min(min, `The ${what} must be at least ${min}.`)
    .max(max, `The ${what} can be at most ${max}.`);
const id = z
  .string(wants('an identifier'))
  .min(1, 'An identifier cannot be empty.')
  .max(LIMITS.identifier, `An identifier has at most ${LIMITS.identifier} characters.`)
  .refine(isKeepable, 'An identifier cannot hold U+0000, or half of a letter.');
const colour = z.string(wants('a colour such as #d9483b')).regex(/^#[0-9a-f]{6}$/i, 'Write a colour as #rrggbb.');

/**
 * Schema of an item of a registry: its kind is known, and its values are as declared.
 *
 * @param checked false if the declaration depends on more than the kind, and is checked elsewhere
 */
function item(
  kinds: {
    readonly what: string;
    readonly all: readonly Declared[];
    has(kind: string): boolean;
    get(kind: string): Declared & { readonly params: Params };
  },
  more: z.ZodRawShape = {},
  checked = true,
) {
  const base = z.strictObject({
    id,
    kind: z.string(wants(`the kind of a ${kinds.what}`)),
    on: z.boolean(wants('true or false')).default(true),
    values: z.record(z.string(), z.unknown(), wants('a list of values')).prefault({}),
    apart: z
      .array(z.string(wants('the name of a value')).max(64), wants('a list of names of values'))
      .max(LIMITS.apartOfItem, `At most ${LIMITS.apartOfItem} values can be apart.`)
      .optional(),
    ...more,
  });
  return base.transform((doc, ctx) => {
    if (!kinds.has(doc.kind)) {
      ctx.addIssue({
        code: 'custom',
        path: ['kind'],
        message: `There is no ${kinds.what} “${doc.kind}”; use one of ${kinds.all.map((k) => k.kind).join(', ')}.`,
      });
      return z.NEVER;
    }
    if (!checked) return doc;
    const kind = kinds.get(doc.kind);
    const values = valuesSchema(kind.params, kind.title).safeParse(doc.values);
    if (values.success) return { ...doc, values: values.data };
    for (const issue of values.error.issues)
      ctx.addIssue({ code: 'custom', path: ['values', ...issue.path], message: issue.message });
    return z.NEVER;
  });
}

const step = item(steps, {
  copies: z.enum(['whole', 'each', 'one'], wants('“whole”, “each” or “one”')).optional(),
  chance: whole('chance of a step', 0, MAX_CHANCE).optional(),
  twin: id.optional(),
});

const patternItem = item(patternKinds, { of: z.string(wants('the name of a value')).max(64) }, false);

/** A part of a finish with patterns: a pattern's parameters depend on the value it lies on. */
const part = item(finishParts, {
  patterns: z
    .array(patternItem, wants('a list of patterns'))
    .max(LIMITS.patternsOfPart, `A part of a finish can have at most ${LIMITS.patternsOfPart} layers of patterns.`)
    .optional(),
}).transform((doc, ctx) => {
  const { patterns: layers } = doc as typeof doc & { patterns?: { kind: string; of: string; values: Values }[] };
  if (!layers) return doc;
  const kind = finishParts.get(doc.kind);
  const sound = layers.map((layer, i) => {
    const target = channelOf(kind, layer.of)?.target;
    if (!target) {
      const known = Object.keys(kind.channels ?? {}).join(', ');
      const message = `${kind.title} has no value “${layer.of}” that a pattern can lie on; use one of ${known}.`;
      ctx.addIssue({ code: 'custom', path: ['patterns', i, 'of'], message });
      return layer;
    }
    const { title } = patternKinds.get(layer.kind);
    const values = valuesSchema(layerParams(patternKinds.get(layer.kind), target), title).safeParse(layer.values);
    if (values.success) return { ...layer, values: values.data };
    for (const issue of values.error.issues)
      ctx.addIssue({ code: 'custom', path: ['patterns', i, 'values', ...issue.path], message: issue.message });
    return layer;
  });
  return { ...doc, patterns: sound };
});

/** A finish with any parts. */
const finishShape = <T extends z.ZodType>(partOf: T) =>
  z.strictObject({
    id,
    of: z.enum(faceKinds, wants(`one of ${faceKinds.join(', ')}`)),
    on: z.boolean(wants('true or false')).default(true),
    parts: z
      .array(partOf, wants('a list of parts'))
      .max(LIMITS.partsOfFinish, `A finish can have at most ${LIMITS.partsOfFinish} parts.`),
  });

const finishesShape = <T extends z.ZodType>(partOf: T) =>
  z.array(finishShape(partOf), wants('a list of finishes')).superRefine((list, ctx) => {
    if (list[0]?.of !== 'main')
      ctx.addIssue({
        code: 'custom',
        path: [],
        message: 'The first finish of a ribbon must be that of its form, of “main”.',
      });
    list.forEach(
      (f, i) =>
        list.findIndex((g) => g.of === f.of) < i &&
        ctx.addIssue({
          code: 'custom',
          path: [i, 'of'],
          message: `There are two finishes of “${f.of}”; leave one out.`,
        }),
    );
  });

/** A ribbon with any steps and finish parts. */
const ribbonShape = <S extends z.ZodType, P extends z.ZodType>(stepOf: S, partOf: P) =>
  z.strictObject({
    id,
    name: text('name of a ribbon', LIMITS.nameOfRibbon),
    colour,
    on: z.boolean(wants('true or false')).default(true),
    twin: id.optional(),
    finishes: finishesShape(partOf),
    steps: z
      .array(stepOf, wants('a list of steps'))
      .max(LIMITS.stepsOfRibbon, `A ribbon can have at most ${LIMITS.stepsOfRibbon} steps.`),
  });

const sceneItems = bySceneList((name) => item(sceneLists[name].kinds));

/** A scene list with any items. */
function sceneListShape<T extends z.ZodType>(name: SceneList, itemOf: T) {
  const { title, least, most } = sceneLists[name];
  return z
    .array(itemOf, wants(`a list for ${title}`))
    .min(least, `${title} needs at least ${least}.`)
    .max(most, `${title} can hold at most ${most}.`);
}

function bySceneList<T>(of: (name: SceneList) => T): Record<SceneList, T> {
  return Object.fromEntries(sceneListNames.map((name) => [name, of(name)])) as Record<SceneList, T>;
}

const sceneShape = bySceneList((name) => {
  const list = sceneListShape(name, sceneItems[name]);
  return sceneLists[name].least === 0 ? list.default([]) : list;
});

const shell = {
  name: text('name', LIMITS.nameOfPiece).min(1, 'A piece needs a name.'),
  loop: z.strictObject({
    frames: whole('number of frames', 1, MAX_FRAMES),
    fps: z
      .number(wants('a frame rate'))
      .min(MIN_FPS, `The frame rate must be at least ${MIN_FPS}.`)
      .max(MAX_FPS, `The frame rate can be at most ${MAX_FPS}.`),
  }),
  format: z.strictObject({
    width: whole('width', LIMITS.side.least, LIMITS.side.most),
    height: whole('height', LIMITS.side.least, LIMITS.side.most),
  }),
};

/** Schemas of a piece's components, for checking an edit of one of them. */
export const parts = {
  shell: z.strictObject(shell),
  ribbon: ribbonShape(z.unknown(), z.unknown()),
  step,
  part,
  scene: sceneItems,
  sceneCounts: bySceneList((name) => sceneListShape(name, z.unknown())),
  render: item(renderings),
  output: item(outputs),
};

/** A piece of the current version. */
export const pieceSchema = z
  .strictObject({
    maypole: z.literal('piece'),
    version: z.literal(PIECE_VERSION),
    ...shell,
    scene: z.strictObject(sceneShape),
    render: parts.render,
    outputs: z
      .array(parts.output, wants('a list of outputs'))
      .max(LIMITS.outputs, `A piece can have at most ${LIMITS.outputs} outputs.`),
    ribbons: z
      .array(ribbonShape(step, part), wants('a list of ribbons'))
      .max(LIMITS.ribbons, `A piece can have at most ${LIMITS.ribbons} ribbons.`),
  })
  .superRefine((piece, ctx) => {
    const seen = new Set<string>();
    const check = ({ id: value }: { id: string }, ...path: (string | number)[]) => {
      if (seen.has(value))
        ctx.addIssue({
          code: 'custom',
          path: [...path, 'id'],
          message: `The identifier “${value}” is used twice; give one of them another.`,
        });
      seen.add(value);
    };
    piece.ribbons.forEach((r, i) => {
      check(r, 'ribbons', i);
      r.steps.forEach((s, j) => check(s, 'ribbons', i, 'steps', j));
      r.finishes.forEach((f, j) => {
        check(f, 'ribbons', i, 'finishes', j);
        f.parts.forEach((p, k) => {
          check(p, 'ribbons', i, 'finishes', j, 'parts', k);
          const layers = (p as { patterns?: { id: string }[] }).patterns ?? [];
          layers.forEach((x, l) => check(x, 'ribbons', i, 'finishes', j, 'parts', k, 'patterns', l));
        });
      });
    });
    for (const list of sceneListNames)
      (piece.scene[list] as { id: string }[]).forEach((x, i) => check(x, 'scene', list, i));
    check(piece.render, 'render');
    piece.outputs.forEach((o, i) => check(o, 'outputs', i));
  });
