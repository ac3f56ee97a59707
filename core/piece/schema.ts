import { z } from 'zod';
import { finishParams } from '../scene/finish';
import { sceneParts } from '../scene/scene';
import { isStepKind, stepKind, stepKinds } from '../steps/index';
import { MAX_FPS, MAX_FRAMES, MIN_FPS } from '../time/loop';
import { PIECE_VERSION } from './piece';
import { valuesSchema } from './value-schema';

// Compiling validators needs `new Function`, which a strict content security policy forbids.
z.config({ jitless: true });

const wants = (what: string) => ({ error: (issue: { input?: unknown }) => `${issue.input === undefined ? 'Nothing' : JSON.stringify(issue.input)?.slice(0, 40)} stands where ${what} belongs.` });
const text = (what: string, max: number) => z.string(wants(what)).max(max, `This ${what} is longer than ${max} characters; shorten it.`);
const whole = (what: string, min: number, max: number) =>
  z.number(wants(what)).int(`The ${what} must be a whole number.`).min(min, `The ${what} must be at least ${min}.`).max(max, `The ${what} can be at most ${max}.`);
const id = z.string(wants('an identifier')).min(1, 'An identifier cannot be empty.').max(64, 'An identifier has at most 64 characters.');
const colour = z.string(wants('a colour such as #d9483b')).regex(/^#[0-9a-f]{6}$/i, 'Write a colour as #rrggbb.');

/** Width or height of the output in pixels. */
export const MAX_OUTPUT = 8192;

const stepBase = z.strictObject({
  id,
  kind: z.string(wants('the kind of a step')),
  on: z.boolean(wants('true or false')).default(true),
  copies: z.enum(['whole', 'each', 'one'], wants('“whole”, “each” or “one”')).optional(),
  twin: id.optional(),
  values: z.record(z.string(), z.unknown(), wants('a list of values')),
});

const step = stepBase.transform((doc, ctx) => {
  if (!isStepKind(doc.kind)) {
    ctx.addIssue({ code: 'custom', path: ['kind'], message: `There is no step “${doc.kind}”; use one of ${stepKinds.map((s) => s.kind).join(', ')}.` });
    return z.NEVER;
  }
  const kind = stepKind(doc.kind);
  const values = valuesSchema(kind.params, kind.title).safeParse(doc.values);
  if (values.success) return { ...doc, values: values.data };
  for (const issue of values.error.issues) ctx.addIssue({ code: 'custom', path: ['values', ...issue.path], message: issue.message });
  return z.NEVER;
});

const ribbon = z.strictObject({
  id,
  name: text('name of a ribbon', 80),
  colour,
  on: z.boolean(wants('true or false')).default(true),
  twin: id.optional(),
  finish: valuesSchema(finishParams, 'A finish'),
  steps: z.array(step, wants('a list of steps')).max(200, 'A ribbon can have at most 200 steps.'),
});

const sceneShape = Object.fromEntries(
  Object.entries(sceneParts).map(([name, part]) => [name, valuesSchema(part.params, part.title).prefault({})]),
);

/** A piece of the current version. */
export const pieceSchema = z
  .strictObject({
    maypole: z.literal('piece'),
    version: z.literal(PIECE_VERSION),
    name: text('name', 120).min(1, 'A piece needs a name.'),
    loop: z.strictObject({
      frames: whole('number of frames', 1, MAX_FRAMES),
      fps: z.number(wants('a frame rate')).min(MIN_FPS, `The frame rate must be at least ${MIN_FPS}.`).max(MAX_FPS, `The frame rate can be at most ${MAX_FPS}.`),
    }),
    output: z.strictObject({ width: whole('width', 16, MAX_OUTPUT), height: whole('height', 16, MAX_OUTPUT) }),
    scene: z.strictObject(sceneShape),
    ribbons: z.array(ribbon, wants('a list of ribbons')).max(64, 'A piece can have at most 64 ribbons.'),
  })
  .superRefine((piece, ctx) => {
    const seen = new Set<string>();
    piece.ribbons.forEach((r, i) => {
      const check = (value: string, path: (string | number)[]) => {
        if (seen.has(value)) ctx.addIssue({ code: 'custom', path, message: `The identifier “${value}” is used twice; give one of them another.` });
        seen.add(value);
      };
      check(r.id, ['ribbons', i, 'id']);
      r.steps.forEach((s, j) => check(s.id, ['ribbons', i, 'steps', j, 'id']));
    });
  });
