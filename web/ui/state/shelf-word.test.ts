import type { Finding } from '@maypole/core/seam/finding';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { proveSeam } from '@maypole/core/seam/proof';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { NOT_MEASURED, type SeamMeasure } from '@/engine/evaluate/seam-watch';
import { gapsToTell, shelfWord } from './shelf-word';
import type { EditorState } from './store';

/** A piece with one value that does not come back. */
const ribbon = newRibbon('box', 0);
const piece = {
  ...newPiece('Half Turn'),
  ribbons: [
    {
      ...ribbon,
      steps: [
        ...ribbon.steps,
        newStep('twist', {
          angle: { motion: 'wave', shape: 'sine', width: 50, low: 0, high: 9, turns: 1.5, phase: 0, rest: 0 },
        } as never),
      ],
    },
  ],
};
const proof = proveSeam(piece);
const closure = (how: 'open' | 'exact' | 'set') => ({ how, worst: how === 'open' ? 0.2 : 0 }) as never;
const measured = (how: 'open' | 'exact' | 'set', over: Partial<SeamMeasure> = {}): SeamMeasure => ({
  ...NOT_MEASURED,
  proof,
  state: 'shapes',
  ribbons: [{ id: ribbon.id, name: ribbon.name, closure: closure(how) }],
  ...over,
});
const state = (measure: SeamMeasure, over: Partial<EditorState> = {}) =>
  ({ id: 'id', revision: 4, save: 'saved', measure, ...over }) as EditorState;

describe('what the shelf is told of the seam', () => {
  it('is what the shapes say, where the motions alone say something else', () => {
    expect(proof.findings.filter((f: Finding) => f.kind === 'gap')).toHaveLength(1);
    expect(gapsToTell(state(measured('set')))).toBe(0);
    expect(gapsToTell(state(measured('open')))).toBeNull();
    const silent = { ...proof, findings: [] };
    expect(gapsToTell(state(measured('open', { proof: silent })))).toBe(1);
    expect(gapsToTell(state(measured('set', { proof: silent })))).toBeNull();
  });
  it('waits until all is measured and saved', () => {
    for (const over of [{ state: 'measuring' }, { state: 'failed' }, { proof: null }] as Partial<SeamMeasure>[])
      expect(gapsToTell(state(measured('set', over)))).toBeNull();
    for (const save of ['waiting', 'saving', 'offline', 'conflict'] as const)
      expect(gapsToTell(state(measured('set'), { save }))).toBeNull();
    expect(gapsToTell(state(measured('set', { state: 'complete' })))).toBe(0);
  });
  describe('on its way', () => {
    const sent: { path: string; body: unknown }[] = [];
    let answers = true;
    beforeEach(() => {
      sent.length = 0;
      answers = true;
      vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
        sent.push({ path, body: JSON.parse(init.body as string) });
        if (!answers) throw new TypeError('away');
        return new Response(null, { status: 204 });
      });
    });
    afterEach(() => vi.unstubAllGlobals());
    it('goes once for a revision and what is said of it', () => {
      const tell = shelfWord();
      for (const m of [measured('set'), measured('set', { progress: 0.5 }), measured('set', { state: 'complete' })])
        tell(state(m));
      tell(state(measured('set'), { revision: 5 }));
      expect(sent).toEqual([4, 5].map((revision) => ({ path: '/api/pieces/id/seam', body: { revision, gaps: 0 } })));
    });
    it('troubles nobody where it does not arrive', async () => {
      answers = false;
      shelfWord()(state(measured('set')));
      await new Promise((r) => setTimeout(r));
      expect(sent).toHaveLength(1);
    });
  });
});
