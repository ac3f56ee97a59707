import { describe, expect, it } from 'vitest';
import type { StoredValue } from '../declare/params';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { Dice } from '../fixtures/dice';
import { linkPiece } from '../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type StepDoc } from '../piece/piece';
import type { Mesh } from '../shape/mesh';
import { checkSeam, summarise } from './check';
import { pointsShown } from './copies-distance';
import { applyRepair } from './finding';
import { proveSeam } from './proof';

const wave = (over: object) => ({
  motion: 'wave',
  shape: 'sine',
  width: 50,
  low: 0,
  high: 1,
  turns: 1,
  phase: 0,
  rest: 0,
  ...over,
});
const piece = (frames: number, ...steps: StepDoc[]): Piece => ({
  ...newPiece('Bounce'),
  loop: { frames, fps: 25 },
  ribbons: [
    { ...newRibbon('box', 0, 'Block'), id: 'block', steps: [newStep('box', { segments: 2 }, 'form'), ...steps] },
  ],
});
const moved = (x: StoredValue) => piece(50, newStep('place', { shift: [x, 0, 0] as never }, 'place'));
const twisted = (turns: number, phase = 0) =>
  piece(50, newStep('twist', { angle: wave({ low: -40, high: 40, turns, phase }) }, 'twist'));
const formula = (text: string) => ({ motion: 'formula', text, otherwise: 0 });

describe('a shape that meets itself and turns round there', () => {
  for (const [name, p] of [
    ['a twist by a wave of 1.5 turns', twisted(1.5)],
    ['a twist by half a turn', twisted(0.5)],
    ['a box moved by sin(3πt)', moved(formula('sin(3*pi*t)'))],
    ['a box moved by 4t(1 − t)', moved(formula('4*t*(1-t)'))],
  ] as const)
    it(`${name} is not called closed`, async () => {
      const report = await checkSeam(p, 'draft', false);
      expect(report.closed).toBe(false);
      expect(report.ribbons[0].closure).toMatchObject({ goesOn: false });
      const [f] = report.proof.findings;
      expect(f).toMatchObject({ kind: 'turn' });
      // It comes one way and leaves the other, equally fast.
      expect(f.speedBefore).toBeCloseTo(-f.speedAfter, 3);
      expect(Math.abs(f.speedAfter)).toBeGreaterThan(0);
      expect(f.words).toMatch(
        /^Closed, but turns round here: it arrives at -?[\d.]+( [m°])? a frame and leaves at -?[\d.]+\.$/,
      );
      expect(summarise(report)).toMatch(
        /^Bounce: closed in place, but not in movement\. Turns round at the seam: Block, /,
      );
      // What is offered first has been tried and mends it; the turn can be kept, too.
      expect((await checkSeam(applyRepair(p, f.repairs[0]), 'draft', false)).closed).toBe(true);
      const kept = await checkSeam(
        applyRepair(
          p,
          f.repairs.find((r) => r.words === 'Keep the turn')!,
        ),
        'draft',
        false,
      );
      expect(kept).toMatchObject({ closed: true, proof: { findings: [] } });
    });
  it('names the value that makes it, and not another that the form hides', async () => {
    const quarter = newStep(
      'spin',
      { turns: 0, angle: { motion: 'keys', adds: 90, keys: [{ at: 0, value: 0, to: 'linear' }] } },
      'spin',
    );
    const report = await checkSeam(
      piece(40, quarter, newStep('place', { shift: [0, wave({ turns: 1.5 }), 0] as never }, 'place')),
      'draft',
      false,
    );
    expect(report.proof.findings.map((f) => [f.kind, f.closedToTheEye ?? false, f.owner])).toEqual([
      ['gap', true, { type: 'step', ribbon: 'block', item: 'spin' }],
      ['turn', false, { type: 'step', ribbon: 'block', item: 'place' }],
    ]);
    expect((await checkSeam(piece(40, quarter), 'draft', false)).closed).toBe(true);
  });
  it('is seen in a ribbon that follows another’s value, too', async () => {
    const base = moved(wave({ turns: 0.5 }) as never);
    const other = {
      ...newRibbon('box', 1, 'Shadow'),
      id: 'shadow',
      steps: [
        newStep('box', {}, 'b'),
        newStep(
          'place',
          {
            shift: [
              {
                motion: 'follow',
                of: 'block/place/shift.x',
                scale: 1,
                offset: 0,
                delay: 0,
                springy: false,
                swings: 4,
                damping: 40,
                otherwise: 0,
              },
              0,
              0,
            ] as never,
          },
          'p',
        ),
      ],
    };
    const report = await checkSeam({ ...base, ribbons: [...base.ribbons, other] }, 'draft', false);
    expect(report.closed).toBe(false);
    expect(report.proof.findings.map((f) => [f.kind, f.place])).toEqual([
      ['turn', 'Block'],
      ['turn', 'Shadow'],
    ]);
  });
});

describe('whole turns', () => {
  it('of a nest close at every level, without a look at the shape', async () => {
    const p = piece(
      36,
      newStep(
        'nest',
        { copies: 5, turn: [0, { motion: 'keys', adds: 360, keys: [{ at: 0, value: 7, to: 'linear' }] }, 0] as never },
        'nest',
      ),
    );
    expect(proveSeam(p)).toMatchObject({ closed: true, findings: [] });
    expect((await checkSeam(p, 'draft', false)).ribbons[0].closure.how).toBe('exact');
  });
  it('of which copies take a share each do not: a third of a turn is none', async () => {
    const turn = (by: string) =>
      piece(
        36,
        newStep('repeat-line', { count: 4 }),
        newStep('vary', {
          what: 'turn',
          by,
          turnTo: [0, 0, { motion: 'keys', adds: 360, keys: [{ at: 0, value: 0, to: 'linear' }] }] as never,
        }),
      );
    expect((await checkSeam(turn('order'), 'draft', false)).closed).toBe(false);
    expect((await checkSeam(turn('same'), 'draft', false)).closed).toBe(true);
  });
});

/** Jumps in place and speed of points at a moment as it is played, by differences over a small part of a frame. */
function jumpAt(ribbon: Piece['ribbons'][number], p: Piece, frame: number): { jump: number; speed: number } | null {
  const h = 1 / 64;
  const at = (f: number): Mesh => evaluateRibbon(ribbon, p.loop, f, 'draft', new MeshCache()).mesh;
  const [a, b, c, d] = [
    at(frame - h),
    at(frame - 1e-9),
    at(frame % p.loop.frames),
    at((frame % p.loop.frames) + h),
  ].map((m) => pointsShown(m, 0));
  if (a.length !== d.length || a.length !== b.length || c.length !== d.length) return null;
  let [jump, speed] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    const [before, after] = [(b[i] - a[i]) / h, (d[i] - c[i]) / h];
    jump = Math.max(jump, Math.abs(after - before), Math.abs(c[i] - b[i]) / h);
    speed = Math.max(speed, Math.abs(before), Math.abs(after));
  }
  return { jump, speed };
}

describe('the verdict and what the eye sees', () => {
  it('agree on random pieces: where the movement jumps at the seam and nowhere else, nothing is called closed', async () => {
    const dice = new Dice(20261);
    let [closed, jumping] = [0, 0];
    for (let n = 0; n < 160; n++) {
      const p = dice.smoothPiece();
      const report = await checkSeam(p, 'draft', false);
      for (const r of linkPiece(p).ribbons) {
        // Parts that have changed places are no jump to the eye, though points are elsewhere.
        if (report.ribbons.some((x) => x.closure.how === 'permuted')) continue;
        const seam = jumpAt(r, p, p.loop.frames);
        const elsewhere = [0.21, 0.37, 0.58, 0.83].map((x) => jumpAt(r, p, Math.round(x * p.loop.frames)));
        if (!seam || elsewhere.some((e) => !e)) continue;
        const usual = Math.max(...elsewhere.map((e) => e!.jump));
        const speed = Math.max(seam.speed, ...elsewhere.map((e) => e!.speed));
        const jumps = seam.jump > 0.1 * speed + 4 * usual + 1e-3;
        if (jumps) jumping++;
        else if (report.closed) closed++;
        if (jumps)
          expect(
            report.closed && report.proof.findings.length === 0,
            `${n}: ${seam.jump} against ${usual}: ${JSON.stringify(r.steps)}`,
          ).toBe(false);
      }
    }
    expect(closed).toBeGreaterThan(30);
    expect(jumping).toBeGreaterThan(20);
  });
});
