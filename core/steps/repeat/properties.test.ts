import { describe, expect, it } from 'vitest';
import { defaultsOf, type Param } from '../../declare/params';
import { copyCount } from '../../copies/copies';
import { form, step } from '../../fixtures/forms';
import { readPieceValue, writePiece } from '../../piece/read';
import { newPiece, newRibbon, newStep } from '../../piece/piece';
import { randomSource } from '../../maths/random';
import { stepKind, stepKinds } from '../index';
import { StepProblem } from '../step';

const makers = ['repeat-line', 'repeat-rings', 'repeat-grid', 'repeat-path', 'repeat-points', 'scatter', 'stream'];
const ground = form('geodesic', { frequency: 3 });
const ring = form('outline', { outline: 'circle', size: 1 });
const other = (kind: string) => (kind === 'repeat-path' ? ring : ground);
const body = form('platonic', { radius: 0.1 });
const random = randomSource(33);

/** A value within the scrub range; counts stay small. */
function draw(name: string, p: Param): unknown {
  const one = (q: { soft: readonly [number, number]; integer: boolean; counts?: boolean }) => {
    const high = /count|rings|columns|rows|layers|more|burst/.test(name) ? Math.min(9, q.soft[1]) : q.soft[1];
    const x = q.soft[0] + (high - q.soft[0]) * random();
    return q.integer || q.counts ? Math.round(x) : x;
  };
  if (p.type === 'number') return one(p);
  if (p.type === 'vector') return [0, 1, 2].map(() => one(p));
  if (p.type === 'choice') return p.options[Math.floor(random() * p.options.length)].value;
  return p.type === 'switch' ? random() < 0.5 : p.default;
}

function made(kind: string, values: Record<string, unknown>, frame = 7) {
  try {
    return step(
      kind,
      body,
      { ...values, takes: 'own' },
      { clock: { frame, frames: 40 }, detail: 'final', other: () => other(kind), otherAt: () => other(kind) },
    );
  } catch (error) {
    if (!(error instanceof StepProblem)) throw error;
    return null;
  }
}

/** How many matrices are not a turn, one size and a place. */
function crooked(m: Float32Array): number {
  let wrong = 0;
  for (let o = 0; o < m.length; o += 16) {
    const axes = [0, 4, 8].map((c) => [m[o + c], m[o + c + 1], m[o + c + 2]]);
    const lengths = axes.map((a) => Math.hypot(...a));
    const fits = [
      [0, 1],
      [1, 2],
      [2, 0],
    ].every(([a, b]) => {
      const cosine = axes[a].reduce((s, x, k) => s + x * axes[b][k], 0);
      return (
        Math.abs(cosine) < 2e-5 * Math.max(1e-3, lengths[a] * lengths[b]) &&
        Math.abs(lengths[a] - lengths[b]) < 1e-4 * Math.max(1e-3, lengths[a])
      );
    });
    if (!fits || m[o + 3] !== 0 || m[o + 7] !== 0 || m[o + 11] !== 0 || m[o + 15] !== 1) wrong++;
  }
  return wrong;
}

describe.each(makers)('%s with random settings', (kind) => {
  // Long lives in fine currents are the same paths over and over, and take longer than all the rest.
  const calm = () =>
    kind === 'stream'
      ? { life: 0.2 + 1.3 * random(), flowOctaves: 1, flowScale: 1 + 2 * random(), flowRate: random() }
      : {};
  const settings = Array.from({ length: kind === 'stream' ? 8 : 25 }, () => ({
    ...Object.fromEntries(Object.entries(stepKind(kind).params).map(([name, p]) => [name, draw(name, p)])),
    ...calm(),
  }));
  it('makes bodies: axes square to each other and alike in length, places in range, numbers once each', () => {
    let seen = 0;
    for (const values of settings) {
      const copies = made(kind, values)?.copies;
      if (!copies) continue;
      seen++;
      const { matrices: m, order, places } = copies;
      expect(copyCount(copies)).toBe(order.length);
      expect(order.every((x) => x >= 0 && x < Math.max(1, places))).toBe(true);
      if (copies.ids && kind !== 'stream') expect(new Set(copies.ids).size).toBe(copies.ids.length);
      expect(crooked(m)).toBe(0);
    }
    expect(seen).toBeGreaterThan(settings.length / 2);
  });
  it('is the same for the same settings, whatever was asked before', () => {
    for (const values of settings.slice(0, kind === 'stream' ? 2 : 8)) {
      const first = made(kind, values, 3)?.copies;
      made(kind, values, 21);
      expect(made(kind, values, 3)?.copies?.matrices).toEqual(first?.matrices);
    }
  });
});

describe('wrong settings of copies', () => {
  const document = (kind: string, values: object) =>
    JSON.parse(
      writePiece({
        ...newPiece(),
        ribbons: [
          {
            ...newRibbon('box', 0),
            steps: [
              newStep('box'),
              { ...newStep(kind), values: { ...defaultsOf(stepKind(kind).params), ...values } as never },
            ],
          },
        ],
      }),
    ) as unknown;
  it.each([
    ['repeat-line', { count: 2_000_000 }, 'count', '1000000'],
    ['repeat-rings', { shape: 'square' }, 'shape', 'ring'],
    ['scatter', { density: -1 }, 'density', '0'],
    ['stream', { life: 0 }, 'life', '0.01'],
    ['vary', { what: 'mood' }, 'what', 'shift'],
    ['swing', { damping: 'soft' }, 'damping', '1'],
  ])('%s %o is refused with its path and what is allowed', (kind, values, name, allowed) => {
    const read = readPieceValue(document(kind, values));
    if (read.ok) throw new Error('It was taken.');
    expect(read.faults[0].path).toContain(`ribbons[0].steps[1].values.${name}`);
    expect(read.faults[0].message).toContain(allowed);
  });
  it('every step for copies is in one group of the menu, and says what it needs', () => {
    expect(stepKinds.filter((k) => k.group === 'repeat').map((k) => k.kind)).toEqual([
      ...makers,
      'vary',
      'swing',
      'thread',
    ]);
    for (const kind of ['vary', 'swing', 'thread'])
      expect(() => step(kind, body)).toThrow('put a step of Repeat before it');
  });
});
