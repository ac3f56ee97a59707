import { isKeepable } from '@maypole/core/declare/limits';
import { shownJson } from '@maypole/core/declare/json-words';
import { z } from 'zod';

/**
 * Building blocks of request schemas. Every text, integer and body of a route is one of these, so that what the
 * database cannot store is refused in words: PostgreSQL has no U+0000 in a text, and 32 bits in an integer.
 */

/** Largest value of an integer column. */
const LARGEST = 2 ** 31 - 1;

/** Fallback messages for Zod, as `error` of `parse`: the field, and what belongs there. */
export function wordsFor(issue: z.core.$ZodRawIssue): string | undefined {
  const path = (issue.path ?? []).map(String).join('.');
  const what = path ? `“${path}”` : 'The request';
  const { input } = issue as { input?: unknown };
  const shown = input === undefined ? 'nothing' : shownJson(input, 60);
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = { object: 'a JSON object {…}', array: 'a list […]', int: 'a whole number' } as Record<
        string,
        string
      >;
      return `${what} must be ${wanted[issue.expected as string] ?? `a ${issue.expected as string}`}, and is ${shown}.`;
    }
    case 'unrecognized_keys':
      return `${what} has ${(issue.keys as string[]).map((k) => `“${k.slice(0, 60)}”`).join(', ')}, which is not known here; leave it out.`;
    case 'too_big':
      return `${what} is ${shown}, above the most of ${String(issue.maximum)}.`;
    case 'too_small':
      return `${what} is ${shown}, below the least of ${String(issue.minimum)}.`;
    case 'invalid_value':
      return `${what} is ${shown}; use one of ${(issue.values as unknown[]).join(', ')}.`;
    default:
      return `${what} is ${shown}, which is not what belongs there.`;
  }
}
z.config({ jitless: true });

const UNKEEPABLE = 'holds a character that no text can have (U+0000, or half of one); take it out.';

/** Whether every text in a value can be stored, keys included. */
function allKeepable(value: unknown): boolean {
  if (typeof value === 'string') return isKeepable(value);
  if (Array.isArray(value)) return value.every(allKeepable);
  if (typeof value !== 'object' || value === null) return true;
  return Object.entries(value).every(([key, x]) => isKeepable(key) && allKeepable(x));
}

/** A value stored as JSON, by its schema. */
export const keptJson = <T extends z.ZodType>(what: string, schema: T) =>
  schema.refine(allKeepable, `${what} ${UNKEEPABLE}`);

/** A text of limited length, unchanged. `what` begins a sentence: “A name”. */
export const exactText = (what: string, most: number, least = 0) =>
  z
    .string(`${what} must be a text.`)
    .min(least, least === 1 ? `${what} is needed.` : `${what} has at least ${least} characters.`)
    .max(most, `${what} has at most ${most} characters.`)
    .refine(isKeepable, `${what} ${UNKEEPABLE}`);

/** The same for what people type: trimmed. */
export const text = (what: string, most: number, least = 0) =>
  z
    .string(`${what} must be a text.`)
    .trim()
    .min(least, least === 1 ? `${what} is needed.` : `${what} has at least ${least} characters.`)
    .max(most, `${what} has at most ${most} characters.`)
    .refine(isKeepable, `${what} ${UNKEEPABLE}`);

const range = (what: string, least: number, most: number) => `${what} must be a whole number from ${least} to ${most}.`;

/** An integer that a column can hold. */
export const whole = (what: string, least = 0, most = LARGEST) =>
  z
    .int(range(what, least, most))
    .min(least, range(what, least, most))
    .max(most, range(what, least, most));

/** The same as part of a URL. */
export const wholeText = (what: string, least = 0, most = LARGEST) =>
  z.coerce
    .number(range(what, least, most))
    .int(range(what, least, most))
    .min(least, range(what, least, most))
    .max(most, range(what, least, most));

/** A number within a range. */
export const amount = (what: string, least: number, most: number) => {
  const words = `${what} must be a number from ${least} to ${most}.`;
  return z.number(words).min(least, words).max(most, words);
};

/** A request body. */
export const body = <T extends z.core.$ZodLooseShape>(shape: T) => z.strictObject(shape);
