import { all, create } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../maths/random';
import { derivativeOf, courseOf, evaluateNumber } from '../value';
import { compileFormula } from './compile';
import { FormulaError, parseFormula } from './parse';
import { formulaFault } from '../motions/formula';

const peer = create(all, {});
const doc = (text: string) => ({ motion: 'formula', text, otherwise: -1 });
const at = (text: string, frame: number, frames = 120) => evaluateNumber(doc(text), { frame, frames });
const fault = (text: string) => {
  try {
    parseFormula(text);
  } catch (error) {
    return error as FormulaError;
  }
  throw new Error(`“${text}” was let through.`);
};

describe('formulas', () => {
  it('give what the parsing library itself evaluates, on random expressions and inputs', () => {
    const random = randomSource(11);
    const of = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)];
    const grow = (depth: number): string => {
      if (depth === 0) return of(['t', 'f', 'n', 'order', 'seed', 'pi', '2', '0.37', '3.5']);
      const [a, b] = [grow(depth - 1), grow(depth - 1)];
      return of([
        `(${a} + ${b})`,
        `(${a} - ${b})`,
        `${a} * ${b}`,
        `(${a}) / (1 + abs(${b}))`,
        `abs(${a})^0.7`,
        `(${a})^2`,
        `sin(${a})`,
        `cos(${a})`,
        `exp(-abs(${a}))`,
        `sqrt(abs(${a}))`,
        `floor(${a})`,
        `mod(${a}, 3)`,
        `min(${a}, ${b})`,
        `max(${a}, ${b}, 1)`,
        `-(${a})`,
        `(${a} < ${b} ? ${a} : ${b})`,
        `atan2(${a}, 2)`,
        `round(${a})`,
        `hypot(${a}, ${b})`,
        `log(1 + abs(${a}))`,
      ]);
    };
    let compared = 0;
    for (let i = 0; i < 400; i++) {
      const text = grow(1 + (i % 4));
      if (text.length > 480) continue;
      const run = compileFormula(parseFormula(text));
      for (let k = 0; k < 3; k++) {
        const scope = { t: random() * 2, f: random() * 100, n: 100, order: 2, count: 5, seed: 0.3 };
        const ours = run(scope);
        const theirs = Number(peer.evaluate(text, scope));
        expect(Math.abs(ours - theirs)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(theirs)));
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(900);
  });
  it('follow the textbook in precedence: powers bind to the right and before a minus', () => {
    expect(at('2^3^2', 0)).toBe(512);
    expect(at('-2^2', 0)).toBe(-4);
    expect(at('2 pi t', 60)).toBeCloseTo(Math.PI, 12);
  });
  it('reach nothing but what is listed', () => {
    for (const text of [
      'import("x")',
      'f = 3',
      'g(x) = x',
      'evaluate("1")',
      't.constructor',
      '[1,2,3]',
      '{a: 1}',
      '"text"',
      'createUnit("x")',
      'a; b',
      '1:5',
      'config({})',
      'sin',
      '2 cm',
      'i',
      '__proto__',
      'constructor(1)',
      'hasOwnProperty(1)',
      'true',
      't!',
    ])
      expect(() => parseFormula(text), text).toThrow(FormulaError);
  });
  it('point at the character that is wrong', () => {
    expect(fault('2*sin(2*pi*t')).toMatchObject({ at: 12 });
    expect(fault('3 + wobble(t)')).toMatchObject({ at: 4, message: 'There is no function “wobble” at character 5.' });
    expect(fault('2*speed')).toMatchObject({ at: 2 });
    expect(fault('1 + sin(t, 2)').message).toContain('“sin” takes 1 argument, not 2, at character 5');
    expect(fault('').message).toContain('empty');
    expect(fault('t'.repeat(600)).message).toContain('at most 500');
    expect(formulaFault('1/sin(2*pi*t)')!.message).toContain('no number at t = 0');
    expect(formulaFault('sqrt(t - 1)')!.message).toContain('root');
    expect(formulaFault('sin(2*pi*t)')).toBeNull();
  });
});

describe('turns of a formula', () => {
  const course = (text: string, frames = 120) => courseOf(doc(text), frames);
  it('are inferred where the tree tells them, worked out by hand', () => {
    const cases: [string, number, number][] = [
      ['sin(2*pi*t)', 1, 0],
      ['sin(3*pi*t)', 2, 0],
      ['cos(2*pi*t/3)', 3, 0],
      ['360*t + 5', 1, 360],
      ['t/4', 1, 0.25],
      ['sin(2*pi*t) + cos(pi*t/2)', 4, 0],
      ['abs(sin(pi*t))', 1, 0],
      ['sin(pi*t)^2', 1, 0],
      ['sin(pi*t)*cos(pi*t)', 1, 0],
      ['floor(3*t)', 1, 3],
      ['floor(t/2)', 2, 1],
      ['mod(5*t, 2)', 2, 0],
      ['fract(t)', 1, 0],
      ['exp(sin(2*pi*t))', 1, 0],
      ['sin(2*pi*f/n)', 1, 0],
      ['sin(2*pi*f/48)', 2, 0],
      ['sin(2*pi*t + 3*sin(4*pi*t))', 1, 0],
      ['seed*7', 1, 0],
      ['2*t - t - t', 1, 0],
    ];
    for (const [text, den, adds] of cases)
      expect([text, course(text).turns.den, course(text).adds, course(text).by, course(text).open]).toEqual([
        text,
        den,
        adds,
        'proof',
        false,
      ]);
  });
  it('are measured otherwise, and said to be; what never comes round is open', () => {
    expect(course('t*t - t^2 + sin(2*pi*t)')).toMatchObject({ by: 'measure', open: false, turns: { num: 1, den: 1 } });
    expect(course('t^2')).toMatchObject({ open: true });
    expect(course('t*sin(2*pi*t)')).toMatchObject({ open: true });
    expect(course('sin(t)')).toMatchObject({ open: true });
  });
  it('what is proven to close is the same to the last bit after a loop', () => {
    for (const text of [
      'sin(2*pi*t)',
      'cos(14*pi*t + 0.3)^3',
      'abs(sin(pi*t))',
      'sin(2*pi*f/n) + 0.1',
      'exp(cos(2*pi*t))',
      'mod(3*t, 1)',
    ])
      for (let f = 0; f < 120; f += 7)
        for (const loops of [1, 2, -3]) expect(at(text, f + 120 * loops)).toBe(at(text, f));
    expect(evaluateNumber(doc('360*t + 0.1'), { frame: 120, frames: 120 }, 360)).toBe(0.1);
  });
  it('have the slope that calculus gives', () => {
    const slope = (text: string, t: number) => derivativeOf(doc(text), { frame: t * 120, frames: 120 }) * 120;
    expect(slope('sin(2*pi*t)', 0.1)).toBeCloseTo(2 * Math.PI * Math.cos(0.2 * Math.PI), 6);
    expect(slope('t^3', 0.7)).toBeCloseTo(3 * 0.49, 6);
    expect(slope('360*t', 0.99999)).toBeCloseTo(360, 5);
  });
  it('stand at the other value where a formula gives no number', () => expect(at('log(t - 0.5)', 0)).toBe(-1));
});
