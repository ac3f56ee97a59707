import type { Params, StoredValue } from '../declare/params';
import { LIMITS } from '../declare/limits';
import { Search, stemsOf } from '../find/search';
import { ALWAYS, newFinish } from '../finish/documents';
import { FACE_WORDS, faceKinds } from '../finish/surface';
import { finishOf, newItem, type Item, type Piece, type Values } from '../piece/piece';
import { freshRibbon, freshStep, switched, withItem, withPart } from '../piece/adding';
import { setPairedValue } from '../piece/pair';
import { mapOwners, ownersOf, type Owner } from '../piece/walk';
import { sceneList } from '../scene/index';
import { stepKinds } from '../steps/index';
import { framesForSeconds, loopSeconds, MAX_FPS, MAX_FRAMES, MIN_FPS, type Loop } from '../time/loop';
import { parseQuantity } from '../time/quantity';
import { valueWords } from '../time/value-words';
import { hexOf } from '../time/colours/css-colour';
import { Fill, type Filled, type Unclear } from './fill';
import { isJoining, joiningWords, LONGEST } from './phrases';
import { clausesOf, tokensOf, type Token } from './tokens';
import { titles, vocabularyFor, type Named, type Subject } from './vocabulary';

/** What a line acts on. */
export interface Context {
  readonly piece: Piece;
  readonly ribbonId: string | null;
  /** The step that was used last. */
  readonly held: string | null;
}

/** What is not understood, with the nearest thing that is. */
export interface Guessed extends Unclear {
  readonly guess?: string;
}

export interface Understood {
  /** What the line does, one sentence for each part. */
  readonly words: readonly string[];
  readonly unclear: readonly Guessed[];
  /** Whether any value was said; a name alone is found, not said. */
  readonly hasValues: boolean;
  /** The piece, the ribbon and the step afterwards. */
  readonly after: Context;
  /** Steps, and parts as `RIBBON/finish`, whose cards are to be open. */
  readonly open: readonly string[];
  /** Whether the scene was changed. */
  readonly scene: boolean;
}

/** Most characters of a line. */
const MOST = 400;

let guesses: Search<{ readonly title: string }> | null = null;

/**
 * Understands a line such as "torus 6 4, twist 240 about z, glow 10 light blue": parts between commas, each a thing and
 * its values in any order. A part without a thing goes on with the one before. Nothing is changed; `after` is what the
 * piece would be.
 */
export function understand(line: string, context: Context): Understood {
  const text = line.slice(0, MOST);
  const state = new State(context);
  for (const clause of clausesOf(tokensOf(text))) state.clause(clause);
  return state.result();
}

class State {
  private piece: Piece;
  private ribbonId: string | null;
  private held: string | null;
  private sentences: { subject: Subject; words: string }[] = [];
  private unclear: Unclear[] = [];
  private open: string[] = [];
  private hasValues = false;
  private scene = false;
  /** The item that a part without a thing goes on with, and what was said of it. */
  private last: { owner: Owner; params: Params; values: Values; said: readonly string[]; subject: Subject } | null =
    null;

  constructor({ piece, ribbonId, held }: Context) {
    this.piece = piece;
    this.ribbonId = piece.ribbons.some((r) => r.id === ribbonId) ? ribbonId : null;
    this.held = held;
  }

  result(): Understood {
    return {
      words: this.sentences.map((s) => s.words),
      unclear: this.unclear.map(withGuess),
      hasValues: this.hasValues,
      after: { piece: this.piece, ribbonId: this.ribbonId, held: this.held },
      open: this.open,
      scene: this.scene,
    };
  }

  clause(tokens: readonly Token[]): void {
    if (this.loop(tokens)) return;
    const found = subjectsIn(tokens, vocabularyFor(this.piece, this.ribbonId, this.held));
    if (found.length === 0) return this.goOn(tokens);
    // A title that two things have means the one that the values fit.
    const before = this.unclear.length;
    const start = this.keep();
    const tried = found.map((f) => {
      this.bring(start);
      this.about(f.subject, [...tokens.slice(0, f.at), ...tokens.slice(f.at + f.length)]);
      return { state: this.keep(), faults: this.unclear.length - before };
    });
    this.bring(tried.reduce((best, t) => (t.faults < best.faults ? t : best)).state);
  }

  private keep() {
    const { piece, ribbonId, held, hasValues, scene, last } = this;
    const lists = { sentences: [...this.sentences], unclear: [...this.unclear], open: [...this.open] };
    return { piece, ribbonId, held, hasValues, scene, last, ...lists };
  }

  private bring(kept: ReturnType<State['keep']>): void {
    Object.assign(this, {
      ...kept,
      sentences: [...kept.sentences],
      unclear: [...kept.unclear],
      open: [...kept.open],
    });
  }

  private about(subject: Subject, rest: readonly Token[]): void {
    if (subject.type === 'loop') return this.refuseAll(rest, 'Say a length and a rate, such as “10 s at 24”.');
    if (rest.length === 1 && rest[0].text.toLowerCase() === 'off' && subject.type !== 'value')
      return this.switchOff(subject, rest);
    if (subject.type === 'value') return this.value(subject, rest);
    if (subject.type === 'scene') return this.sceneItem(subject, rest);
    if (subject.type === 'part') return this.part(subject, rest);
    return this.step(subject, rest);
  }

  /** "10 s at 24", "240 frames", "24 fps". */
  private loop(tokens: readonly Token[]): boolean {
    const numbers = tokens.filter((t) => t.type === 'number');
    const words = tokens.filter((t) => t.type === 'word' && !isJoining(t.text));
    if (
      words.some(
        (t) => !['loop', 'length', 'duration', 'rate', 'frame', 'fps', 'long', 'lasts'].includes(t.text.toLowerCase()),
      )
    )
      return false;
    const isTime = (t: Token) => /^(s|secs?|seconds?|ms|f|fr|frames?)$/i.test(t.unit);
    const isRate = (t: Token) =>
      /^fps$/i.test(t.unit) || (t.unit === '' && tokens[tokens.indexOf(t) - 1]?.text === 'at');
    const length = numbers.find(isTime);
    const rate = numbers.find(isRate);
    if (numbers.length === 0 || numbers.some((t) => t !== length && t !== rate)) return false;
    const fps = rate ? Number(rate.text.replace(',', '.')) : this.piece.loop.fps;
    if (rate && !(fps >= MIN_FPS && fps <= MAX_FPS)) {
      this.unclear.push({ ...spanOf(rate), why: `The rate goes from ${MIN_FPS} to ${MAX_FPS} frames a second.` });
      return true;
    }
    const frames = length ? framesIn(length, { ...this.piece.loop, fps }) : this.sameSeconds(fps);
    if (!(frames >= 1 && frames <= MAX_FRAMES)) {
      this.unclear.push({ ...spanOf(length ?? rate!), why: `A loop has 1 to ${MAX_FRAMES} frames.` });
      return true;
    }
    this.piece = { ...this.piece, loop: { ...this.piece.loop, frames, fps } };
    this.hasValues = true;
    this.tell({ type: 'loop', title: 'Loop' }, `Sets the loop: ${frames} frames at ${fps} a second`);
    return true;
  }

  private sameSeconds(fps: number): number {
    const { loop } = this.piece;
    return framesForSeconds(loopSeconds(loop), fps);
  }

  /** A part without a thing. */
  private goOn(tokens: readonly Token[]): void {
    if (!this.last) return this.refuseAll(tokens);
    const { owner, params, values, said, subject } = this.last;
    const filled = new Fill(params, values, this.piece.loop, said).read(tokens);
    this.give(owner, values, filled.values);
    this.take(subject, owner, params, filled);
    const old = this.sentences.findLastIndex((s) => s.subject === subject);
    const added = this.valuesIn(params, filled, said);
    if (old >= 0 && added)
      this.sentences[old] = {
        subject,
        words: `${this.sentences[old].words}${said.length > 0 ? ', ' : ': '}${added}`,
      };
  }

  /** Sets what differs, and what is linked to it in a pair. */
  private give(owner: Owner, before: Values, values: Values): void {
    for (const [param, value] of Object.entries(values))
      if (value !== before[param]) this.piece = setPairedValue(this.piece, { owner, param }, value as StoredValue);
  }

  private refuseAll(tokens: readonly Token[], why?: string): void {
    const meant = tokens.filter((t) => t.type !== 'word' || !isJoining(t.text));
    for (const t of meant.length > 0 ? meant : tokens) this.unclear.push({ ...spanOf(t), ...(why ? { why } : {}) });
  }

  private take(subject: Subject, owner: Owner, params: Params, filled: Filled): void {
    this.unclear.push(...filled.unclear);
    this.hasValues ||= filled.said.length > 0;
    this.last = { owner, params, values: filled.values, said: filled.said, subject };
  }

  private valuesIn(params: Params, { values, said }: Filled, before: readonly string[] = []): string {
    return said
      .filter((name) => !before.includes(name))
      .map((name) => `${params[name].title.toLowerCase()} ${valueWords(values[name] as StoredValue, params[name])}`)
      .join(', ');
  }

  private tell(subject: Subject, doing: string, params?: Params, filled?: Filled): void {
    const values = params && filled ? this.valuesIn(params, filled) : '';
    this.sentences.push({ subject, words: values ? `${doing}: ${values}` : doing });
  }

  private step(subject: Subject & { type: 'step' }, tokens: readonly Token[]): void {
    const { kind, params } = subject;
    const isForm = FORMS.has(kind);
    const named = subject.param;
    const made = isForm ? freshRibbon(this.piece, kind) : this.piece.ribbons.find((r) => r.id === this.ribbonId);
    if (!made) return this.refuseAll(tokens, 'Choose a ribbon first, or begin with a form.');
    if (isForm ? this.piece.ribbons.length >= LIMITS.ribbons : made.steps.length >= LIMITS.stepsOfRibbon)
      return this.refuseAll(
        tokens,
        isForm ? 'The piece has all ribbons it can have.' : `${made.name} is full of steps.`,
      );
    const step = isForm ? made.steps[0] : freshStep(kind);
    const filled = new Fill(params, step.values, this.piece.loop, [], named).read(tokens);
    const whole = { ...step, values: filled.values };
    const ribbon = { ...made, steps: isForm ? [whole] : [...made.steps, whole] };
    this.piece = {
      ...this.piece,
      ribbons: isForm
        ? [...this.piece.ribbons, ribbon]
        : this.piece.ribbons.map((r) => (r.id === ribbon.id ? ribbon : r)),
    };
    this.ribbonId = ribbon.id;
    this.held = whole.id;
    this.open.push(whole.id);
    this.take(subject, { type: 'step', ribbon: ribbon.id, item: whole.id }, params, filled);
    const doing = isForm ? `Adds the ribbon ${ribbon.name}` : `Adds ${subject.title} to ${ribbon.name}`;
    this.tell(subject, doing, params, filled);
  }

  /** "Studio light off": the last one of its kind that is on. */
  private switchOff(subject: Subject & { readonly kind: string }, tokens: readonly Token[]): void {
    const { kind } = subject;
    const owned = ownersOf(this.piece).findLast(({ owner, item }) => {
      const isNear = owner.type === 'scene' || ('ribbon' in owner && owner.ribbon === this.ribbonId);
      return owner.type === subject.type && isNear && item.kind === kind && item.on;
    });
    if (!owned) return this.refuseAll(tokens, `There is no ${subject.title} that is on.`);
    if (subject.type === 'scene' && sceneList(subject.list).least > 0)
      return this.refuseAll(tokens, `One of them is always on; say which takes the place of ${subject.title}.`);
    if (ALWAYS.has(kind) || FORMS.has(kind)) return this.refuseAll(tokens, `${subject.title} is always on.`);
    this.piece = mapOwners(this.piece, ({ item }) => (item === owned.item ? { ...item, on: false } : item));
    this.scene ||= subject.type === 'scene';
    this.hasValues = true;
    this.last = null;
    this.tell(subject, `Switches ${owned.title} of ${owned.place} off`);
  }

  private part(subject: Subject & { type: 'part' }, tokens: readonly Token[]): void {
    const ribbon = this.piece.ribbons.find((r) => r.id === this.ribbonId);
    if (!ribbon) return this.refuseAll(tokens, 'Choose a ribbon first, or begin with a form.');
    const face = tokens.findIndex((t) => facesCalled.has(stemsOf(t.text)));
    const of = face < 0 ? 'main' : facesCalled.get(stemsOf(tokens[face].text))!;
    const finish = finishOf(ribbon, of) ?? newFinish(of);
    const wasOn = finish.parts.some((p) => p.kind === subject.kind && p.on);
    const worn = withPart(finish, subject.kind);
    const finishes = ribbon.finishes.includes(finish)
      ? ribbon.finishes.map((f) => (f === finish ? worn : f))
      : [...ribbon.finishes, worn];
    const part = worn.parts.find((p) => p.kind === subject.kind)!;
    const rest = face < 0 ? tokens : tokens.toSpliced(face, 1);
    const filled = new Fill(subject.params, part.values, this.piece.loop).read(rest);
    this.piece = {
      ...this.piece,
      ribbons: this.piece.ribbons.map((r) => (r === ribbon ? { ...r, finishes } : r)),
    };
    this.open.push(`${ribbon.id}/finish`);
    const owner: Owner = { type: 'part', ribbon: ribbon.id, item: part.id };
    this.give(owner, part.values, filled.values);
    this.take(subject, owner, subject.params, filled);
    const title = of === 'main' ? subject.title : `${FACE_WORDS[of].title} ${subject.title.toLowerCase()}`;
    this.tell(subject, `${wasOn ? 'Sets' : 'Adds'} ${title} of ${ribbon.name}`, subject.params, filled);
  }

  /** Lamps are added; of what there can be one of, the one that is there is set. */
  private sceneItem(subject: Subject & { type: 'scene' }, tokens: readonly Token[]): void {
    const list = sceneList(subject.list);
    const items = this.piece.scene[subject.list];
    const isLamp = subject.list === 'lights';
    const old = isLamp ? undefined : items.find((x) => x.kind === subject.kind);
    if (!old && list.most > 1 && items.length >= list.most)
      return this.refuseAll(tokens, `The scene has all it can have: ${list.most}.`);
    const declared = list.kinds.get(subject.kind);
    const item: Item = { ...(old ?? newItem(declared)), on: true };
    const filled = new Fill(subject.params, item.values, this.piece.loop).read(tokens);
    const whole = { ...item, values: filled.values };
    const next = old
      ? switched(items.with(items.indexOf(old), whole), whole.id, true, list)
      : withItem(items, whole, list);
    this.piece = { ...this.piece, scene: { ...this.piece.scene, [subject.list]: next } };
    this.scene = true;
    this.take(subject, { type: 'scene', item: whole.id }, subject.params, filled);
    this.tell(subject, `${old?.on ? 'Sets' : 'Adds'} ${subject.title}`, subject.params, filled);
  }

  /** One value of something that is there, and those that are named after it. */
  private value(subject: Subject & { type: 'value' }, tokens: readonly Token[]): void {
    const { owned, param } = subject;
    const { params } = owned;
    const filled = new Fill(params, owned.item.values, this.piece.loop, [], param).read(tokens);
    if (filled.said.length === 0 && filled.unclear.length === 0)
      return this.refuseAll(tokens, `Say what ${subject.title} is to be.`);
    this.give(owned.owner, owned.item.values, filled.values);
    if (owned.owner.type === 'step') this.open.push(owned.owner.item);
    if (owned.owner.type === 'part') this.open.push(`${owned.owner.ribbon}/finish`);
    this.scene ||= owned.owner.type === 'scene';
    this.unclear.push(...filled.unclear);
    this.hasValues ||= filled.said.length > 0;
    this.last = null;
    this.tell(subject, `Sets ${owned.title} of ${owned.place}`, params, filled);
  }
}

const FORMS = new Set(stepKinds.filter((k) => k.group === 'form').map((k) => k.kind));

/** Faces that may have a finish of their own, by their titles. */
const facesCalled = new Map(faceKinds.filter((of) => of !== 'main').map((of) => [stemsOf(FACE_WORDS[of].title), of]));

const spanOf = ({ from, to, text }: Token): Unclear => ({ from, to, text });

interface Place {
  readonly subject: Subject;
  readonly at: number;
  readonly length: number;
}

/** How much longer phrases count more than single words. */
const LONGER = 2;

/** What the surest phrase of a clause may mean; the longer one among equals, then the first. */
function subjectsIn(tokens: readonly Token[], meaning: (phrase: string) => readonly Named[]): readonly Place[] {
  let best: { readonly places: readonly Place[]; readonly score: number } = { places: [], score: -Infinity };
  for (let length = Math.min(LONGEST, tokens.length); length > 0; length--)
    for (let at = 0; at + length <= tokens.length; at++) {
      const part = tokens.slice(at, at + length);
      if (part.some((t) => t.type !== 'word') || (length === 1 && isJoining(part[0].text))) continue;
      const named = meaning(part.map((t) => t.text).join(' '));
      if (named.length === 0) continue;
      const score = named[0].sure + LONGER * (length - 1);
      if (score <= best.score) continue;
      const equals = named.filter((n) => n.sure === named[0].sure);
      best = { places: equals.map(({ subject }) => ({ subject, at, length })), score };
    }
  return best.places;
}

function framesIn(token: Token, loop: Loop): number {
  return Math.round(parseQuantity(`${token.text}${token.unit.toLowerCase()}`, 'frames', loop));
}

function withGuess(unclear: Unclear): Guessed {
  if (unclear.why || hexOf(unclear.text)) return unclear;
  guesses ??= new Search([...titles, ...joiningWords].map((title) => ({ title })));
  const guess = guesses.find(unclear.text)[0]?.title;
  return guess ? { ...unclear, guess } : unclear;
}
