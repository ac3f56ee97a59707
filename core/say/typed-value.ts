import type { NumberParam, NumberValue, StoredValue, VectorParam } from '../declare/params';
import { vec3 } from '../maths/vec3';
import { wholeTurn } from '../seam/whole-turn';
import type { Loop } from '../time/loop';
import { isMoving } from '../time/value';
import { Fill } from './fill';
import { TIMES } from './phrases';
import { tokensOf, type Token } from './tokens';

/** The field that something is typed into. */
export interface TypedInto {
  readonly param: NumberParam | VectorParam;
  readonly stored: StoredValue;
  /** Of a vector: which of its numbers. */
  readonly axis?: number;
  readonly loop: Loop;
}

/** What is meant, of the whole value; or why nothing is. */
export type Typed = { readonly value: StoredValue } | { readonly why: string };

const MORE = /(?:^|\s)(?:to|waves?|round|spins?|turning|all|each|xyz)(?:\s|$)|…/i;
/** Whether a text is more than one number: a motion, or of a vector several numbers. */
export function saysMore(text: string, isVector: boolean): boolean {
  if (MORE.test(text)) return true;
  const tokens = isVector ? tokensOf(text).filter((t) => t.type !== 'comma') : [];
  return tokens.length > 1 && tokens.every((t) => t.type === 'number');
}

const ROUND = /^(?:round|spins?|whole|turns?|turning|backwards?|back|goes|x|times?)$/;

/**
 * Reads what is more than one number: "0 to 360", "wave 0.2 to 0.4 twice", "round twice", of a vector also "1 2 3", and
 * "all 2" for the three of them.
 *
 * @param text what was typed, more than a number: see `saysMore`
 */
export function typedValue(text: string, { param, stored, axis, loop }: TypedInto): Typed {
  const tokens = tokensOf(text).filter((t) => t.type !== 'comma');
  if (param.type === 'number' || axis === undefined) return oneOf(tokens, asNumber(param), stored as NumberValue, loop);
  const old = stored as readonly NumberValue[];
  const one = { ...asNumber(param), default: param.default[axis] };
  if (/^(?:all|each|xyz)$/i.test(tokens[0]?.text ?? '')) {
    const read = oneOf(tokens.slice(1), one, old[axis], loop);
    return 'why' in read ? read : { value: vec3(() => read.value as NumberValue) };
  }
  if (tokens.length > 1 && tokens.every((t) => t.type === 'number')) {
    if (tokens.length > 3) return { why: `${param.title} has three numbers.` };
    return filled(tokens, param, stored, loop);
  }
  const read = oneOf(tokens, one, old[axis], loop);
  return 'why' in read ? read : { value: vec3((i) => (i === axis ? (read.value as NumberValue) : old[i])) };
}

/** One number of a vector, declared like a number of its own. */
const asNumber = (param: NumberParam | VectorParam): NumberParam =>
  param.type === 'number' ? param : { ...param, type: 'number', default: param.default[0] };

function oneOf(tokens: readonly Token[], param: NumberParam, stored: NumberValue, loop: Loop): Typed {
  const turns = turnsIn(tokens);
  if (turns !== null && param.cyclic && param.moves) {
    const start = isMoving(stored) ? 0 : stored;
    return { value: wholeTurn(start, param.cyclic * turns) };
  }
  return filled(tokens, param, stored, loop);
}

function filled(tokens: readonly Token[], param: NumberParam | VectorParam, stored: StoredValue, loop: Loop): Typed {
  const { values, said, unclear } = new Fill({ typed: param }, { typed: stored }, loop, [], 'typed').read(tokens);
  const [first] = unclear;
  if (first) return { why: first.why ?? `“${first.text}” is not understood here.` };
  if (said.length === 0) return { why: `Write a number${param.moves ? ', or a motion such as “0 to 1 twice”' : ''}.` };
  return { value: values.typed as StoredValue };
}

/** How many whole turns "round", "round twice", "3 times round backwards" mean; null if it is something else. */
function turnsIn(tokens: readonly Token[]): number | null {
  let turns = 1;
  let isRound = false;
  let sign = 1;
  for (const token of tokens) {
    const word = token.text.toLowerCase();
    if (token.type === 'number' && /^(?:x|times)?$/.test(token.unit)) turns = Number(word.replace(',', '.'));
    else if (word in TIMES) turns = TIMES[word];
    else if (ROUND.test(word)) {
      isRound ||= /^(?:round|spins?|turn|turning)/.test(word);
      if (word.startsWith('back')) sign = -1;
    } else return null;
  }
  return isRound && Number.isInteger(turns) && turns !== 0 ? sign * turns : null;
}
