import { describe, expect, it } from 'vitest';
import { askingFirst, ASKED_FROM, checkCost, StepWaits } from './allowance';
import { StepProblem } from '../declare/step-problem';
import { evaluateRibbon } from '../evaluate/ribbon';
import { MeshCache } from '../evaluate/mesh-cache';
import { copyCount } from '../copies/copies';
import { newRibbon, newStep, type RibbonDoc } from '../piece/piece';

const at = (ribbon: RibbonDoc, first: boolean, cache = new MeshCache()) =>
  askingFirst(first, () => evaluateRibbon(ribbon, { frames: 10, fps: 10 }, 0, 'draft', cache));
const ribbon = (...steps: ReturnType<typeof newStep>[]): RibbonDoc => ({ ...newRibbon('box', 0), steps });

describe('what costs much', () => {
  it('waits only where it is asked first, and from its amount on', () => {
    for (const cost of ['faces', 'copies', 'tries', 'distances'] as const) {
      const check = (amount: number) => () => checkCost(cost, amount, 'Use fewer.');
      expect(check(1e12)).not.toThrow();
      askingFirst(true, () => {
        expect(check(ASKED_FROM[cost])).not.toThrow();
        expect(check(ASKED_FROM[cost] + 1)).toThrow(StepWaits);
        expect(check(9_700_000_000)).toThrow(
          /9700\.0 million (faces|copies|places|distances).*it waits\. Use fewer\.$/,
        );
      });
      expect(check(1e12)).not.toThrow();
    }
  });
  it('is a problem of its step, whatever comes of the work around it', () => {
    expect(new StepWaits('x')).toBeInstanceOf(StepProblem);
    expect(() =>
      askingFirst(true, () => {
        throw new Error('other');
      }),
    ).toThrow('other');
    expect(() => checkCost('faces', 1e9, '')).not.toThrow();
  });
  it.each([
    ['copies', ribbon(newStep('box', { segments: 1 }), newStep('repeat-line', { count: 300_000 }))],
    ['distances', ribbon(newStep('drops', { count: 60, cells: 100 }))],
  ])('%s: the steps before it are shown meanwhile, and it is whole once asked for', (word, doc) => {
    const waiting = at(doc, true);
    expect(waiting.problems).toMatchObject([{ waits: true, message: expect.stringContaining(word) as string }]);
    expect(waiting.mesh.copies).toBeUndefined();
    const { mesh, problems } = at(doc, false);
    expect(problems).toEqual([]);
    expect(mesh.copies ? copyCount(mesh.copies) : mesh.connectivity.vertexCount).toBeGreaterThan(1000);
  });
  it('what is there already costs nothing', () => {
    const cache = new MeshCache();
    const doc = ribbon(newStep('box', { segments: 1 }), newStep('repeat-line', { count: 300_000 }));
    expect(at(doc, true, cache).problems).toHaveLength(1);
    const whole = at(doc, false, cache);
    expect(copyCount(whole.mesh.copies!)).toBe(300_000);
    expect(at(doc, true, cache)).toMatchObject({ problems: [], key: whole.key });
  });
});
