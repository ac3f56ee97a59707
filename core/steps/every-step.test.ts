import { beforeAll, describe, expect, it } from 'vitest';
import { defaultsOf, type Param } from '../declare/params';
import { form } from '../fixtures/forms';
import { curvesMesh } from '../shape/curves/curves';
import { eulerCharacteristic } from '../shape/measure';
import type { Mesh } from '../shape/mesh';
import { topologyOf } from '../shape/topology';
import { randomSource } from '../maths/random';
import { stepGroups, stepKind, stepKinds } from './index';
import { applyStep, StepProblem } from './step';

const empty = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};
const ring = curvesMesh([
  { points: Array.from({ length: 24 }, (_, i) => [Math.cos(i / 4), 0.1 * i, Math.sin(i / 4)]).flat(), closed: true },
]);
const random = randomSource(2024);
const between = (low: number, high: number) => low + (high - low) * random();

/** A value within the scrub range; counts stay small, so that hundreds are made in seconds. */
function draw(name: string, p: Param): unknown {
  const small =
    /segments|sides|rows|columns|frequency|rings|meridians|parallels|^parts$|along|round$|steps$|cells|points|count|copies|times|iterations|bodies/i.test(
      name,
    );
  const one = (q: { soft: readonly [number, number]; integer: boolean; counts?: boolean }) => {
    const x = between(q.soft[0], small ? Math.min(q.soft[1], Math.max(q.soft[0], 10)) : q.soft[1]);
    return q.integer || q.counts ? Math.round(x) : x;
  };
  switch (p.type) {
    case 'number':
      return /level/.test(name) ? Math.min(1, one(p)) : one(p);
    case 'vector':
      return [0, 1, 2].map(() => one(p));
    case 'choice':
      return p.options[Math.floor(random() * p.options.length)].value;
    case 'switch':
      return random() < 0.5;
    case 'ribbon':
      return 'other';
    default:
      return p.default;
  }
}

beforeAll(async () => {
  for (const k of stepKinds) await k.load?.();
});

/** The other ribbon: a curve, or for steps that take a body, one that overlaps what they work on. */
const BODIES = new Set(['combine', 'scatter', 'repeat-points', 'repeat-line', 'repeat-grid', 'stream', 'rest']);
const NEEDS_COPIES = new Set(['vary', 'swing', 'thread']);
const other = (kind: string) => (BODIES.has(kind) ? form('box', { size: [0.7, 0.9, 1.7] }) : ring);

function run(kind: string, values: Record<string, unknown>, input: Mesh, frame: number): Mesh | null {
  try {
    return applyStep(stepKind(kind), values as never, input, {
      clock: { frame, frames: 48 },
      detail: 'draft',
      other: () => other(kind),
      otherAt: () => other(kind),
    });
  } catch (error) {
    // A step that cannot work on its input says so; anything else is a fault.
    if (!(error instanceof StepProblem)) throw error;
    expect(error.message).toMatch(/\.$/);
    return null;
  }
}

function expectSound(m: Mesh, what: string): void {
  const { vertexCount, faceStart, corners } = m.connectivity;
  expect(m.positions.length, what).toBe(3 * vertexCount);
  expect(m.positions.every(Number.isFinite), what).toBe(true);
  expect(
    corners.every((v) => v < vertexCount),
    what,
  ).toBe(true);
  expect(faceStart[0]).toBe(0);
  expect(faceStart[faceStart.length - 1], what).toBe(corners.length);
  if (m.connectivity.uv) expect(m.connectivity.uv.length, what).toBe(2 * corners.length);
  if (m.connectivity.slots) expect(m.connectivity.slots.length, what).toBe(faceStart.length - 1);
  if (m.connectivity.curves)
    expect(
      m.connectivity.curves.points.every((v) => v < vertexCount),
      what,
    ).toBe(true);
  for (let f = 0; f + 1 < faceStart.length; f++) expect(faceStart[f + 1] - faceStart[f]).toBeGreaterThanOrEqual(3);
  if (m.connectivity.shadingGroups) expect(m.connectivity.shadingGroups.length).toBe(faceStart.length - 1);
}

const settings = (kind: string) =>
  Object.fromEntries(Object.entries(stepKind(kind).params).map(([name, p]) => [name, draw(name, p)]));

describe.each(stepKinds.filter((k) => k.group === 'form').map((k) => k.kind))(
  'the form %s over random settings',
  (kind) => {
    it('has no point that is none, no corner out of range, and comes round bit for bit', () => {
      let successes = 0;
      for (let n = 0; n < 12; n++) {
        const values = settings(kind);
        const made = run(kind, values, empty, 0);
        if (!made) continue;
        successes++;
        expectSound(made, `${kind} ${JSON.stringify(values)}`);
        const again = run(kind, values, empty, 48)!;
        expect(again.positions).toEqual(made.positions);
        expect(again.connectivity.corners).toEqual(made.connectivity.corners);
      }
      // A form that is read from a file has none here.
      expect(successes).toBeGreaterThanOrEqual(kind === 'imported' ? 0 : 6);
    });
  },
);

describe('forms that are closed', () => {
  it.each(['torus', 'sphere', 'geodesic', 'box', 'capsule', 'cone', 'platonic', 'medal', 'cord'])(
    '%s: every edge has two faces, whatever the settings',
    (kind) => {
      let successes = 0;
      for (let n = 0; n < 8; n++) {
        const values = {
          ...settings(kind),
          ...(kind === 'cone' ? { bottom: between(0.2, 2), top: between(0.2, 2) } : {}),
        };
        const m = run(kind, values, empty, 0);
        if (!m) continue;
        successes++;
        expect(
          [...topologyOf(m.connectivity).borderEdge].filter(Boolean),
          `${kind} ${JSON.stringify(values)}`,
        ).toHaveLength(0);
        expect(eulerCharacteristic(m)).toBe(kind === 'torus' || kind === 'cord' ? 0 : 2);
      }
      expect(successes).toBeGreaterThanOrEqual(6);
    },
  );
});

describe.each(stepKinds.filter((k) => k.group !== 'form').map((k) => k.kind))(
  'the step %s over random settings',
  (kind) => {
    const inputs: [string, Mesh][] = (['box', 'geodesic', 'plane', 'platonic', 'outline', 'text'] as const).map(
      (form) => [
        form,
        run(
          form,
          {
            ...defaultsOf(stepKind(form).params),
            ...(form === 'geodesic' ? { frequency: 4 } : { segments: 3, columns: 5, rows: 4 }),
          },
          empty,
          0,
        )!,
      ],
    );
    if (NEEDS_COPIES.has(kind))
      for (const entry of inputs)
        entry[1] = run('repeat-line', defaultsOf(stepKind('repeat-line').params), entry[1], 0)!;
    it('gives sound shapes, leaves its input alone, and works on nothing, too', () => {
      let successes = 0;
      for (const [form, input] of [...inputs, ['nothing', empty] as [string, Mesh]])
        // A stream finds the whole paths of its particles each time, which takes longer.
        for (let n = 0; n < (kind === 'stream' ? 2 : 3); n++) {
          const values = settings(kind);
          const before = input.positions.slice();
          const out = run(kind, values, input, 7);
          expect(input.positions).toEqual(before);
          if (out && form !== 'nothing') successes++;
          if (out) expectSound(out, `${kind} on ${form} ${JSON.stringify(values)}`);
          if (out && form === 'nothing') expect(out.positions).toHaveLength(0);
        }
      expect(successes).toBeGreaterThanOrEqual(6);
    });
  },
);

describe('the menu', () => {
  it('has a group for every step, and a help line that can be searched for every one', () => {
    expect(new Set(stepKinds.map((k) => k.group))).toEqual(new Set(stepGroups.map((g) => g.group)));
    expect(new Set(stepKinds.map((k) => k.kind)).size).toBe(stepKinds.length);
    expect(new Set(stepKinds.map((k) => k.title)).size).toBe(stepKinds.length);
    for (const k of stepKinds) expect(k.help.length).toBeGreaterThan(15);
  });
});
