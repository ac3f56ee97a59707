import { constantOf } from './formula/compile';
import { FormulaError, parseFormula } from './formula/parse';
import { frameRate, type Loop } from './loop';

/** What was typed and is no number, in words for the user. */
export class QuantityError extends Error {
  override readonly name = 'QuantityError';
}

type Factors = Readonly<Record<string, number>>;

const LENGTHS: Factors = { m: 1, cm: 0.01, mm: 0.001, km: 1000 };
const scaled = (factors: Factors, by: number): Factors =>
  Object.fromEntries(Object.entries(factors).map(([name, f]) => [name, f * by]));

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
      return { turn: 1, turns: 1, deg: 1 / 360, '°': 1 / 360 };
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

/**
 * A number as a person types it: arithmetic, decimal comma or point, and units of the field's kind, converted: "3*2",
 * "1/3", "50cm", "15f", "0.5s", "90deg", "1/4 turn".
 *
 * @param unit of the field
 * @throws QuantityError
 */
export function parseQuantity(typed: string, unit: string, loop: Loop): number {
  const text = typed
    .trim()
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/−/g, '-');
  if (text === '') throw new QuantityError('Nothing is typed; write a number.');
  const factors = factorsOf(unit, loop);
  let unknown = '';
  // A unit applies to the whole product or quotient before it: 1/4 turn is a quarter of one.
  const plain = text.replace(
    /((?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?(?:\s*[*/]\s*(?:\d+\.?\d*|\.\d+))*)\s*([a-z°%×]+)/gi,
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
      `“${unknown}” is no unit of this value; use ${
        Object.keys(factors)
          .filter((f) => f !== '')
          .slice(0, 4)
          .join(', ') || 'a plain number'
      }.`,
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
