import type { NumberParam, NumberValue, Param, Params, StoredValue, VectorParam } from '../declare/params';
import { conditionsOf, isShown, meets } from '../declare/shown';
import type { MotionDoc } from '../declare/documents';
import { vec3 } from '../maths/vec3';
import { stemsOf } from '../find/search';
import type { Values } from '../piece/piece';
import { wholeTurn } from '../seam/whole-turn';
import type { Loop } from '../time/loop';
import { motionKind } from '../time/motions/index';
import { parseQuantity, QuantityError } from '../time/quantity';
import { hexOf } from '../time/colours/css-colour';
import { DIRECTIONS, isJoining, LONGEST, TIMES, VALUE_WORDS } from './phrases';
import type { Token } from './tokens';

/** What of a line is not understood, and why if it is known. */
export interface Unclear {
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly why?: string;
}

export interface Filled {
  readonly values: Values;
  /** Names of values that were said, in their order. */
  readonly said: readonly string[];
  readonly unclear: readonly Unclear[];
}

/** "pivotTurn" as it is said: "pivot turn". */
export const identifierWords = (name: string): string => name.replace(/([A-Z])/g, ' $1').toLowerCase();

/** Motions between two numbers, by the value that says how often in a loop. */
const OFTEN = { wave: 'turns', wander: 'rate' } as const;
type Swinging = keyof typeof OFTEN;
const SWINGING = Object.keys(OFTEN) as Swinging[];

type Numeric = NumberParam | VectorParam;
const isNumeric = (p: Param): p is Numeric => p.type === 'number' || p.type === 'vector';
const AXES: Readonly<Record<string, number>> = { x: 0, y: 1, z: 2 };

/**
 * Gives the values of one kind what a clause says: numbers with their names or in the order of declaration, colours,
 * choices, switches, ranges as motions, and where a lamp stands.
 */
export class Fill {
  private values: Values;
  private readonly said: string[];
  private readonly unclear: Unclear[] = [];
  /** The value that was named and has got nothing yet. */
  private named: string | null = null;
  private axis: number | null = null;
  /** The switch that was named last. */
  private switched: string | null = null;
  private motion: Swinging | null = null;
  private turns = 1;
  private moving: { readonly name: string; readonly axis: number | null } | null = null;

  /**
   * @param said values that earlier clauses set
   * @param named the value that the subject named already
   */
  constructor(
    private readonly params: Params,
    values: Values,
    private readonly loop: Loop,
    said: readonly string[] = [],
    named?: string,
  ) {
    this.values = values;
    this.said = [...said];
    this.named = named ?? null;
  }

  /** Reads a clause without the words of its subject. */
  read(tokens: readonly Token[]): Filled {
    if (this.named !== null && this.params[this.named].type === 'switch') this.switchOn(this.named);
    for (let i = 0; i < tokens.length;) {
      const token = tokens[i];
      if (token.type === 'number') i = this.readNumbers(tokens, i);
      else if (token.type === 'colour') i += this.readColour(token, [token]);
      else i += this.readWords(tokens, i);
    }
    if (this.turns !== 1) {
      const { turns } = this.params;
      if (this.moving) this.applyTurns();
      else if (turns?.type === 'number') this.set('turns', this.turns);
    }
    return { values: this.values, said: this.said, unclear: this.unclear };
  }

  private readNumbers(tokens: readonly Token[], at: number): number {
    const numbers = [tokens[at]];
    let range = false;
    let next = at + 1;
    const joins = (t: Token | undefined, words: readonly string[]) =>
      t?.type === 'word' && words.includes(t.text.toLowerCase());
    while (joins(tokens[next], ['by', 'x', '×', 'to', '…']) && tokens[next + 1]?.type === 'number') {
      range = range || joins(tokens[next], ['to', '…']);
      numbers.push(tokens[next + 1]);
      next += 2;
    }
    // "3 times" says how often.
    if (numbers.length === 1 && joins(tokens[next], ['times', 'time'])) {
      this.turns = Number(tokens[at].text);
      return next + 1;
    }
    // Three plain numbers after the name of a vector are its axes.
    const target = this.named === null ? undefined : this.params[this.named];
    if (!range && numbers.length === 1 && target?.type === 'vector' && this.axis === null)
      while (numbers.length < 3 && tokens[next]?.type === 'number') numbers.push(tokens[next++]);
    // "2 x 2 m": the last one has the unit of all.
    const unit = numbers.at(-1)!.unit;
    const whole = numbers.map((n) => ({ ...n, unit: n.unit || unit }));
    if (range && whole.length === 2) this.setRange(whole[0], whole[1]);
    else this.setNumbers(whole);
    return next;
  }

  /** The value that a number without a name means: the next in the order of declaration that takes its unit. */
  private nextFor(token: Token): string | null {
    const open = Object.entries(this.params).filter(
      ([name, p]) => isNumeric(p) && !this.said.includes(name) && isShown(this.params, this.values, name),
    ) as [string, Numeric][];
    const first = Object.entries(this.params).find(([, p]) => isNumeric(p))?.[0];
    const fits = ([name, p]: [string, Numeric]) =>
      (p.type === 'number' || name === first) &&
      !p.more &&
      !(p.type === 'number' && p.seeds) &&
      typeof this.number(token, p) === 'number';
    return open.find(fits)?.[0] ?? null;
  }

  private number(token: Token, param: Numeric): number | string {
    try {
      return parseQuantity(`${token.text}${token.unit}`, param.unit, this.loop);
    } catch (error) {
      if (error instanceof QuantityError) return error.message;
      throw error;
    }
  }

  /** A number within the limits of a value; null if it is none, which is noted. */
  private checked(token: Token, param: Numeric): number | null {
    const value = this.number(token, param);
    if (typeof value === 'string') return this.refuse(token, value);
    const unit = param.unit === '' ? '' : ` ${param.unit}`;
    if (param.integer && !Number.isInteger(value)) return this.refuse(token, `${param.title} is a whole number.`);
    if (value < param.min || value > param.max)
      return this.refuse(token, `${param.title} goes from ${param.min} to ${param.max}${unit}.`);
    return value;
  }

  private refuse(token: Token, why?: string): null {
    this.unclear.push({ from: token.from, to: token.to, text: token.text, ...(why ? { why } : {}) });
    return null;
  }

  private setNumbers(tokens: readonly Token[]): void {
    const name = this.named ?? this.nextFor(tokens[0]);
    const param = name === null ? undefined : this.params[name];
    if (name === null || !param || !isNumeric(param)) {
      for (const token of tokens)
        this.refuse(token, param ? `${param.title} takes no number.` : 'No value is left for it.');
      return;
    }
    if (param.type === 'number') {
      const value = this.checked(tokens[0], param);
      if (value !== null) this.set(name, value);
      this.named = null;
      // "100 by 70": each next one is of the next value.
      if (tokens.length > 1) this.setNumbers(tokens.slice(1));
      return;
    }
    const read = tokens.slice(0, 3).map((t) => this.checked(t, param));
    for (const extra of tokens.slice(3)) this.refuse(extra, `${param.title} has three numbers.`);
    if (read.every((x) => x !== null)) this.set(name, this.vector(name, param, read));
    this.named = null;
    this.axis = null;
  }

  /** The three numbers of a vector as they are. */
  private axes(name: string, param: VectorParam): readonly NumberValue[] {
    return (this.values[name] ?? param.default) as readonly NumberValue[];
  }

  private inVector(name: string, param: VectorParam, axis: number, value: NumberValue): StoredValue {
    const old = this.axes(name, param);
    // What has one axis by default is a way: another axis takes its place, unless somebody has set it.
    const isWay =
      param.default.filter((x) => x !== 0).length === 1 &&
      !this.said.includes(name) &&
      param.default.every((x, i) => x === old[i]);
    return vec3((i) => (i === axis ? value : isWay ? 0 : old[i]));
  }

  private vector(name: string, param: VectorParam, read: readonly number[]): StoredValue {
    if (read.length === 1 && this.axis !== null) return this.inVector(name, param, this.axis, read[0]);
    const old = this.axes(name, param);
    if (read.length > 1) return vec3((i) => read[i] ?? old[i]);
    const [a, b, c] = param.default;
    // Of a size all are meant, of a way its own direction.
    if (a === b && b === c && a !== 0) return vec3(() => read[0]);
    const main = Math.max(
      0,
      param.default.findIndex((x) => x !== 0),
    );
    return this.inVector(name, param, main, read[0]);
  }

  /** From one number to another: a whole gain of an angle goes on, anything else goes there and back. */
  private setRange(from: Token, to: Token): void {
    const name = this.named ?? this.nextFor(from);
    const param = name === null ? undefined : this.params[name];
    if (name === null || !param || !isNumeric(param) || !param.moves) {
      this.refuse(to, param ? `${param.title} does not move.` : 'No value is left for it.');
      return;
    }
    const [a, b] = [this.checked(from, param), this.checked(to, param)];
    if (a === null || b === null) return;
    const gains = param.cyclic !== undefined && a !== b && (b - a) % param.cyclic === 0 && this.motion === null;
    const kind = this.motion ?? 'wave';
    const start = motionKind(kind).start((a + b) / 2, { ...param, type: 'number' } as NumberParam);
    const motion = (
      gains
        ? wholeTurn(a, b - a)
        : { motion: kind, ...start, low: a, high: b, ...(this.motion ? {} : { shape: 'smoothstep' }) }
    ) as MotionDoc;
    const axis = param.type === 'vector' ? (this.axis ?? 0) : null;
    this.set(name, axis === null ? motion : this.inVector(name, param as VectorParam, axis, motion));
    this.moving = { name, axis };
    this.named = null;
    this.axis = null;
  }

  /** How often the motion that was said goes round. */
  private applyTurns(): void {
    const { name, axis } = this.moving!;
    const param = this.params[name];
    const often = (doc: MotionDoc): MotionDoc =>
      doc.motion === 'keys'
        ? { ...doc, adds: (doc.adds as number) * this.turns }
        : { ...doc, [OFTEN[doc.motion as Swinging]]: this.turns };
    const value = this.values[name];
    if (axis === null) this.set(name, often(value as MotionDoc));
    else this.set(name, this.inVector(name, param as VectorParam, axis, often((value as readonly MotionDoc[])[axis])));
  }

  private readWords(tokens: readonly Token[], at: number): number {
    const token = tokens[at];
    const word = token.text.toLowerCase();
    const target = this.named === null ? undefined : this.params[this.named];
    if (target?.type === 'vector' && word in AXES) {
      this.axis = AXES[word];
      return 1;
    }
    if (word === 'at' && this.placeAt(tokens, at)) return 1;
    if (word === 'off' && this.switched !== null) {
      this.set(this.switched, false);
      this.switched = null;
      return 1;
    }
    for (let length = Math.min(LONGEST, tokens.length - at); length > 0; length--) {
      const part = tokens.slice(at, at + length);
      if (part.some((t) => t.type !== 'word')) continue;
      const text = part.map((t) => t.text).join(' ');
      // “temperature 5000” is a value, “temperature” alone a choice.
      const isNumber = tokens[at + length]?.type === 'number';
      if ((isNumber && this.name(text, true)) || this.choose(text) || this.name(text)) return length;
      if (
        length <= 3 &&
        !isJoining(text) &&
        !/^[0-9a-f]{6}$/i.test(text) &&
        hexOf(text) !== null &&
        this.readColour(token, part) > 0
      )
        return length;
    }
    const swinging = SWINGING.find((kind) => word === kind || word === `${kind}s`);
    if (swinging) this.motion = swinging;
    else if (word in TIMES) this.turns = TIMES[word];
    else if (word in DIRECTIONS && this.stands(word)) return 1;
    else if (['no', 'without', 'not'].includes(word) && tokens[at + 1]) return this.switchOff(tokens, at);
    else if (!isJoining(word) && word !== 'from') this.refuse(token);
    return 1;
  }

  /** "at 2 3 2" says where it stands. */
  private placeAt(tokens: readonly Token[], at: number): boolean {
    const name = ['place', 'shift', 'source'].find((n) => this.params[n]?.type === 'vector' && !this.said.includes(n));
    const numbers = [1, 2, 3].every((k) => tokens[at + k]?.type === 'number');
    if (name === undefined || this.named !== null || !numbers) return false;
    this.named = name;
    return true;
  }

  private readColour(token: Token, part: readonly Token[]): number {
    const hex = hexOf(part.map((t) => t.text).join(' '));
    const isFree = (name: string) => this.params[name].type === 'colour' && !this.said.includes(name);
    const name =
      this.named !== null && this.params[this.named].type === 'colour'
        ? this.named
        : Object.keys(this.params).find(isFree);
    if (hex === null || name === undefined) {
      if (token.type === 'colour') this.refuse(token, hex === null ? undefined : 'No colour is left for it.');
      return token.type === 'colour' ? 1 : 0;
    }
    this.set(name, hex);
    this.named = null;
    return part.length;
  }

  /** Takes a phrase as a choice; by its title, its value, or the first word of its title. */
  private choose(text: string): boolean {
    const said = stemsOf(text);
    if (said === '') return false;
    const free = Object.entries(this.params).filter(([name]) => this.named === null || this.named === name);
    for (const exact of [true, false])
      for (const [name, param] of free) {
        if (param.type !== 'choice' || this.said.includes(name)) continue;
        const option = param.options.find(({ value, title }) => {
          const full = stemsOf(title);
          return exact ? full === said || stemsOf(value) === said : full.split(' ')[0] === said && said.length > 2;
        });
        if (!option) continue;
        this.set(name, option.value);
        this.named = null;
        return true;
      }
    return false;
  }

  /**
   * Takes a phrase as the name of a value; of a switch, that it is on.
   *
   * @param exact whether only a whole title counts, and only of a value that takes numbers
   */
  private name(text: string, exact = false): boolean {
    const name = this.nameOf(text, exact);
    if (name === undefined) return false;
    if (this.params[name].type === 'switch') this.switchOn(name);
    else this.named = name;
    return true;
  }

  private nameOf(text: string, exact = false): string | undefined {
    const said = stemsOf(text);
    if (said === '') return undefined;
    const names = Object.keys(this.params);
    const titled = (test: (title: string) => boolean) => names.find((n) => test(stemsOf(this.params[n].title)));
    if (exact) return names.find((n) => isNumeric(this.params[n]) && stemsOf(this.params[n].title) === said);
    const other = VALUE_WORDS[text.toLowerCase()]?.find((n) => n in this.params);
    return (
      titled((title) => title === said) ??
      other ??
      names.find((n) => stemsOf(identifierWords(n)) === said) ??
      (isJoining(text) ? undefined : titled((title) => title.split(' ').includes(said)))
    );
  }

  /** A switch that is named is on, unless "off" comes after it. */
  private switchOn(name: string): void {
    this.set(name, true);
    this.switched = name;
    this.named = null;
  }

  private switchOff(tokens: readonly Token[], at: number): number {
    const name = this.nameOf(tokens[at + 1].text);
    if (name === undefined || this.params[name].type !== 'switch') {
      this.refuse(tokens[at]);
      return 1;
    }
    this.set(name, false);
    return 2;
  }

  /** Where a lamp stands. */
  private stands(word: string): boolean {
    const { place, azimuth, elevation } = DIRECTIONS[word];
    if (this.params.place?.type === 'vector') this.set('place', place);
    else if (this.params.elevation?.type === 'number') {
      this.set('elevation', elevation);
      if (azimuth !== undefined && this.params.azimuth) this.set('azimuth', azimuth);
    } else return false;
    return true;
  }

  /** Sets a value, and what it depends on so that it counts. */
  private set(name: string, value: StoredValue): void {
    this.values = { ...this.values, [name]: value };
    if (!this.said.includes(name)) this.said.push(name);
    for (const when of conditionsOf(this.params[name])) {
      const other = this.params[when.param];
      if (!other || !('is' in when)) continue;
      if (!meets(when, this.values[when.param] ?? other.default)) this.set(when.param, when.is[0]);
    }
  }
}
