import { describe, expect, it } from 'vitest';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { defaultsOf } from '../declare/params';
import { stepKinds } from '../steps/index';
import { linkPiece } from './link';
import { newPiece, newRibbon, newStep, type Piece, type StepDoc } from './piece';
import { selfMovingOf } from './self-moving';

const piece = (form: string, ...steps: StepDoc[]): Piece => ({
  ...newPiece('Self'),
  loop: { frames: 40, fps: 20 },
  ribbons: [{ ...newRibbon(form, 0, 'Vane'), steps: [newStep(form), ...steps] }],
});
const told = (p: Piece) => selfMovingOf(p).map((s) => `${s.title}: ${s.words}`);

describe('what moves without a motion', () => {
  it('is named after its step and value, with how much', () => {
    expect(told(piece('box', newStep('spin', { turns: 2 })))).toEqual(['Spin turns: 2 a loop']);
    expect(told(piece('sphere', newStep('displace', { rate: 0.8 })))).toEqual(['Displace rate: rate 0.8']);
    expect(told(piece('box', newStep('repeat-line', { advance: 1 })))).toEqual(['Line move on: 1 a loop']);
    expect(told(piece('box', newStep('tumble')))).toEqual(['Tumble: by itself']);
    expect(told(piece('box', newStep('stream')))[0]).toMatch(/^Stream/);
    expect(told(piece('drops'))).toHaveLength(1);
  });
  it('is nothing where it stands still, is off, or has a motion of its own', () => {
    expect(told(piece('box', newStep('spin', { turns: 0 }), newStep('displace', { rate: 0 })))).toEqual([]);
    expect(told(piece('box', { ...newStep('spin', { turns: 1 }), on: false }))).toEqual([]);
    const off = piece('box', newStep('spin', { turns: 1 }));
    expect(told({ ...off, ribbons: [{ ...off.ribbons[0], on: false }] })).toEqual([]);
  });
  it('is told of hidden ribbons, too, where others are made from them', () => {
    const hidden = (id: string, ...steps: StepDoc[]) => ({
      ...newRibbon('drops', 1, id),
      id,
      on: false,
      steps: [newStep('box'), ...steps],
    });
    const cut = piece('box', newStep('combine', { other: 'cutter' }));
    const spun = hidden('cutter', newStep('spin', { turns: 1 }));
    expect(told({ ...cut, ribbons: [...cut.ribbons, spun] })).toEqual(['Spin turns: 1 a loop']);
    // Through another, too; not where the step that names it is off, and never round in a circle.
    const through = hidden('cutter', newStep('combine', { other: 'last' }));
    const last = hidden('last', newStep('spin', { turns: 2 }), newStep('combine', { other: 'cutter' }));
    expect(told({ ...cut, ribbons: [...cut.ribbons, through, last] })).toEqual(['Spin turns: 2 a loop']);
    const off = piece('box', { ...newStep('combine', { other: 'cutter' }), on: false });
    expect(told({ ...off, ribbons: [...off.ribbons, spun] })).toEqual([]);
  });
  it('whatever shape changes over the loop, something is told to move; where nothing is, none does', () => {
    let [moving, still] = [0, 0];
    for (const kind of stepKinds) {
      if (kind.load || ['along', 'combine', 'text', 'svg', 'imported'].includes(kind.kind)) continue;
      for (const over of [{}, { rate: 0.7 }, { turns: 1 }, { advance: 1 }, { travels: 1 }]) {
        const values = {
          ...defaultsOf(kind.params),
          ...Object.fromEntries(Object.entries(over).filter(([name]) => kind.params[name]?.type === 'number')),
        };
        const p =
          kind.group === 'form'
            ? piece(kind.kind)
            : piece(
                kind.needs === 'curves' ? 'outline' : 'sphere',
                ...(kind.kind === 'vary' || kind.kind === 'swing' || kind.kind === 'thread'
                  ? [newStep('repeat-line', { count: 3 })]
                  : []),
                newStep(kind.kind, values),
              );
        if (kind.group === 'form') Object.assign(p.ribbons[0].steps[0].values, values);
        const key = (f: number) => {
          const { mesh } = evaluateRibbon(linkPiece(p).ribbons[0], p.loop, f, 'draft', new MeshCache());
          return [mesh.positions, mesh.copies?.matrices ?? []]
            .map((a) => [...a].map((x) => x.toFixed(6)).join())
            .join('/');
        };
        const moves = key(0) !== key(7);
        if (moves) moving++;
        else still++;
        if (moves) expect(told(p), `${kind.kind} ${JSON.stringify(over)}`).not.toEqual([]);
      }
    }
    expect(moving).toBeGreaterThan(15);
    expect(still).toBeGreaterThan(100);
  });
});
