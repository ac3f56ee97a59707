import { constantOf } from './formula/compile';
import { FormulaError, parseFormula } from './formula/parse';
import { frameRate, type Loop } from './loop';

/** What was typed and is no number, in words for the user. */
export class QuantityError extends Error {
  override readonly name = 'QuantityError';
}

type Factors = Readonly<Record<string, number>>;

/** Factors to metres; the inch is exact (international yard and pound agreement, 1959). */
const LENGTHS: Factors = { m: 1, cm: 0.01, mm: 0.001, km: 1000, in: 0.0254, ft: 0.3048 };
const BEATS_OF_BAR = 4;

const scaled = (factors: Factors, by: number): Factors =>
  Object.fromEntries(Object.entries(factors).map(([name, f]) => [name, f * by]));

/** The same things once in a loop, a second or a frame. */
const perLoop = (things: Factors, loop: Loop, second: number): Factors =>
  Object.fromEntries(
    Object.entries(things).flatMap(([name, f]) => [
      [`${name}/loop`, f],
      [`${name}/s`, (f * loop.frames) / second],
      [`${name}/frame`, f * loop.frames],
    ]),
  );

/** Units that may be typed, as factors to the unit of a field. Durations depend on the loop. */
function factorsOf(unit: string, loop: Loop): Factors {
  const rate = frameRate(loop.fps);
  const second = rate.num / rate.den;
  const frames: Factors = {
    f: 1,
    fr: 1,
    frame: 1,
    frames: 1,
    s: second,
    sec: second,
    secs: second,
    second,
    seconds: second,
    ms: second / 1000,
    loop: loop.frames,
    loops: loop.frames,
  };
  switch (unit) {
    case 'm':
      return LENGTHS;
    case 'mm':
      return scaled(LENGTHS, 1000);
    case 'nm':
      return { nm: 1, um: 1000, µm: 1000 };
    case '°':
      return { '°': 1, deg: 1, turn: 360, turns: 360, rad: 180 / Math.PI };
    case 'turns':
      return { turn: 1, turns: 1, deg: 1 / 360, '°': 1 / 360, rad: 0.5 / Math.PI };
    case '/loop':
      return { ...perLoop({ '': 1 }, loop, second), hz: loop.frames / second };
    case 'm/loop':
      return perLoop(LENGTHS, loop, second);
    case 'EV':
      return { EV: 1, ev: 1, stop: 1, stops: 1 };
    case '%':
      return { '%': 1, ...scaled(frames, 100 / loop.frames) };
    case 'frames':
      return { ...frames, '%': loop.frames / 100 };
    case 'loops':
      return { ...scaled(frames, 1 / loop.frames), '%': 0.01 };
    case 's':
      return { ...scaled(frames, 1 / second), '%': loop.frames / second / 100 };
    case 'px':
      return { px: 1, k: 1000 };
    case 'fps':
      return { fps: 1 };
    case '×':
      return { '×': 1, x: 1, '%': 0.01 };
    default:
      return { [unit]: 1, ...(unit === '' ? { '%': 0.01 } : {}) };
  }
}

/** The first name of each unit, as many as fit a message. */
const namesIn = (factors: Factors): string[] =>
  Object.keys(factors)
    .filter((name, i, all) => name !== '' && all.findIndex((other) => factors[other] === factors[name]) === i)
    .slice(0, 5);

/** “1,000” is a thousand to some and one to others: it is asked back. */
function refuseThousands(typed: string): void {
  const [whole] = /(?<![\d.,])[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?(?![\d,])|\d{1,3}(?:\.\d{3})+,\d+/.exec(typed) ?? [];
  if (whole === undefined) return;
  const digits = whole.replace(/[.,](?=\d{3}(?!\d))/g, '');
  const many = digits.replace(',', '.');
  const one = /^\d{1,3},\d{3}$/.test(whole) ? String(Number(whole.replace(',', '.'))) : null;
  throw new QuantityError(
    one === null
      ? `“${whole}” is written with marks between thousands; write ${many}.`
      : `“${whole}” can be ${many} or ${one}; write one of these.`,
  );
}

/** “8 beats at 120 bpm” and “3 bars at 90 bpm” in seconds; a bar has four beats. */
function inSeconds(text: string): string {
  const [, count, what, rate] =
    /^(\d+(?:\.\d+)?)\s*(beats?|bars?)\s*(?:at|@)\s*(\d+(?:\.\d+)?)\s*(?:bpm)?$/i.exec(text) ?? [];
  if (count === undefined || Number(rate) === 0) return text;
  const beats = Number(count) * (/^bar/i.test(what) ? BEATS_OF_BAR : 1);
  return `${(beats * 60) / Number(rate)}s`;
}

/**
 * A number as a person types it: arithmetic, decimal comma or point, and units of the field's kind, converted: "3*2",
 * "1/3", "50cm", "15f", "0.5s", "90deg", "1/4 turn", "0.3 m/s", "2 Hz", "8 beats at 120 bpm".
 *
 * @param unit of the field
 * @throws QuantityError
 */
export function parseQuantity(typed: string, unit: string, loop: Loop): number {
  refuseThousands(typed);
  const text = inSeconds(
    typed
      .trim()
      .replace(/(\d),(\d)/g, '$1.$2')
      .replace(/−/g, '-'),
  );
  if (text === '') throw new QuantityError('Nothing is typed; write a number.');
  const factors = factorsOf(unit, loop);
  let unknown = '';
  // A unit applies to the whole product or quotient before it: 1/4 turn is a quarter of one.
  const plain = text.replace(
    /((?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?(?:\s*[*/]\s*(?:\d+\.?\d*|\.\d+))*)\s*((?:[a-z]+)?\/(?:loop|s|frame)(?![a-z])|[a-z°%×]+)/gi,
    (whole, number: string, word: string) => {
      const factor = factors[word] ?? factors[word.toLowerCase()];
      if (factor === undefined) {
        if (/^(pi|e)$/i.test(word)) return whole;
        unknown ||= word;
        return number;
      }
      return factor === 1 ? `(${number})` : `((${number})*${factor})`;
    },
  );
  if (unknown)
    throw new QuantityError(
      `“${unknown}” is no unit of this value; use ${namesIn(factors).join(', ') || 'a plain number'}.`,
    );
  let value: number | undefined;
  try {
    value = constantOf(parseFormula(plain));
  } catch (error) {
    if (!(error instanceof FormulaError)) throw error;
  }
  if (value === undefined || !Number.isFinite(value)) throw new QuantityError(`“${typed.trim()}” is not a number.`);
  return value;
}
