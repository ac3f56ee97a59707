/** A word, a number, a colour or a comma of a line, and where it stands. */
export interface Token {
  readonly type: 'word' | 'number' | 'colour' | 'comma';
  readonly text: string;
  /** Of a number: its unit as typed; empty for none. */
  readonly unit: string;
  /** First character, and the one after the last. */
  readonly from: number;
  readonly to: number;
}

const COLOUR = /#(?:[0-9a-f]{8}|[0-9a-f]{6}|[0-9a-f]{4}|[0-9a-f]{3})(?![0-9a-z])/iy;
const NUMBER = /[-+−]?(?:\d+(?:[.,]\d+)?|\.\d+)(?:\/\d+)?/y;
/** Right after a number anything is a unit, but for an x between two numbers. */
const UNIT = /°|%|×(?!\s*[\d.])|(?!x\s*[\d.])[a-zµ]+(?:\/[a-z]+)?/iy;
/** After a space only what is one. */
const UNIT_APART =
  /\s+(°|%|×(?!\s*[\d.])|(?:copies|m|cm|mm|km|nm|s|sec|secs|seconds?|ms|f|fr|frames?|loops?|turns?|deg|degrees?|rad|px|fps|stops?|ev|k|m\/loop|\/loop)(?![a-z0-9/]))/iy;
const WORD = /[^\s,;]+/y;

/** Splits a line. Every character but spaces belongs to one token. */
export function tokensOf(line: string): Token[] {
  const tokens: Token[] = [];
  const match = (pattern: RegExp, at: number) => {
    pattern.lastIndex = at;
    return pattern.exec(line);
  };
  for (let at = 0; at < line.length;) {
    if (/\s/.test(line[at])) {
      at++;
      continue;
    }
    const add = (type: Token['type'], text: string, to: number, unit = '') => {
      tokens.push({ type, text, unit, from: at, to });
      at = to;
    };
    if (line[at] === ',' || line[at] === ';') {
      add('comma', line[at], at + 1);
      continue;
    }
    const colour = match(COLOUR, at);
    if (colour) {
      add('colour', colour[0], at + colour[0].length);
      continue;
    }
    const number = match(NUMBER, at);
    if (number) {
      const end = at + number[0].length;
      const near = match(UNIT, end);
      const apart = near ? null : match(UNIT_APART, end);
      const unit = near?.[0] ?? apart?.[1] ?? '';
      add('number', number[0], end + (near?.[0] ?? apart?.[0] ?? '').length, unit);
      continue;
    }
    // “2x1”: what stands between two numbers is a word of its own.
    const isBetween = /x\d/iy.test(line.slice(at, at + 2)) && tokens.at(-1)?.to === at;
    const word = isBetween ? line[at] : match(WORD, at)![0];
    add('word', word, at + word.length);
  }
  return tokens;
}

/** The parts between commas. */
export function clausesOf(tokens: readonly Token[]): Token[][] {
  const clauses: Token[][] = [[]];
  for (const token of tokens) {
    if (token.type === 'comma') clauses.push([]);
    else clauses.at(-1)!.push(token);
  }
  return clauses.filter((c) => c.length > 0);
}
