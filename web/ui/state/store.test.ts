import { withScene } from '@maypole/core/fixtures/edit';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { isMoving } from '@maypole/core/time/value';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  addRibbon,
  addStep,
  changeForm,
  duplicateRibbon,
  duplicateStep,
  moveRibbon,
  moveStep,
  removeRibbon,
  removeStep,
  switchStep,
} from './actions';
import { backupsOf } from './backup';
import { orbit, pan, zoom } from './camera';
import { saveNow } from './saving';
import { useEditor } from './store';

const now = () => useEditor.getState();
const ribbon = () => now().piece.ribbons[0];
const kinds = () => ribbon().steps.map((s) => s.kind);

beforeEach(() => {
  const first = newRibbon('torus', 0, 'Ring');
  now().open(
    'id',
    { ...newPiece('Test'), ribbons: [{ ...first, steps: [...first.steps, newStep('displace'), newStep('twist')] }] },
    4,
  );
});

describe('editing', () => {
  it('adds, doubles, moves, switches and removes steps; the form stays on top', () => {
    const { id } = ribbon();
    addStep(id, 'smooth');
    expect(kinds()).toEqual(['torus', 'displace', 'twist', 'smooth']);
    addStep(id, 'subdivide', ribbon().steps[0].id);
    expect(kinds()).toEqual(['torus', 'subdivide', 'displace', 'twist', 'smooth']);
    moveStep(id, ribbon().steps[4].id, 0);
    expect(kinds()).toEqual(['torus', 'smooth', 'subdivide', 'displace', 'twist']);
    const before = now().piece;
    moveStep(id, ribbon().steps[0].id, 3);
    expect(now().piece).toBe(before);
    duplicateStep(id, ribbon().steps[1].id);
    expect(kinds()).toEqual(['torus', 'smooth', 'smooth', 'subdivide', 'displace', 'twist']);
    expect(new Set(ribbon().steps.map((s) => s.id)).size).toBe(6);
    switchStep(id, ribbon().steps[5].id);
    expect(ribbon().steps[5].on).toBe(false);
    removeStep(id, ribbon().steps[2].id);
    expect(kinds()).toEqual(['torus', 'smooth', 'subdivide', 'displace', 'twist']);
  });
  it('exchanges the form and keeps the steps after it', () => {
    changeForm(ribbon().id, 'box');
    expect(kinds()).toEqual(['box', 'displace', 'twist']);
  });
  it('adds, doubles, moves and removes ribbons, and keeps one chosen', () => {
    addRibbon('plane');
    expect(now().piece.ribbons.map((r) => r.name)).toEqual(['Ring', 'Plane']);
    expect(now().ribbonId).toBe(now().piece.ribbons[1].id);
    duplicateRibbon(ribbon().id);
    expect(now().piece.ribbons.map((r) => r.name)).toEqual(['Ring', 'Ring copy', 'Plane']);
    const ids = now().piece.ribbons.flatMap((r) => [r.id, ...r.steps.map((s) => s.id)]);
    expect(new Set(ids).size).toBe(ids.length);
    moveRibbon(ribbon().id, 1);
    expect(now().piece.ribbons.map((r) => r.name)).toEqual(['Ring copy', 'Ring', 'Plane']);
    moveRibbon(ribbon().id, -1);
    expect(now().piece.ribbons[0].name).toBe('Ring copy');
    for (const r of now().piece.ribbons) removeRibbon(r.id);
    expect(now().ribbonId).toBeNull();
    now().undo();
    expect(now().ribbonId).toBe(ribbon().id);
  });
  it('every edit is undone and made again, and marks the piece as not saved', () => {
    const start = now().piece;
    expect(now().save).toBe('saved');
    addStep(ribbon().id, 'smooth');
    expect(now().save).toBe('waiting');
    now().setValue(
      'Height',
      { owner: { type: 'step', ribbon: ribbon().id, item: ribbon().steps[1].id }, param: 'height' },
      0.7,
    );
    const end = now().piece;
    now().undo();
    now().undo();
    expect(now().piece).toBe(start);
    now().undo();
    expect(now().piece).toBe(start);
    now().redo();
    now().redo();
    expect(now().piece).toBe(end);
  });
  it('an edit that changes nothing is none', () => {
    now().edit('Nothing', (p) => p);
    expect(now().history.past).toHaveLength(0);
  });
});

describe('camera', () => {
  const camera = () => now().piece.scene.cameras[0].values;
  it('goes round, stops short of the poles, comes nearer, all as one edit', () => {
    orbit(30, 400);
    expect(camera()).toMatchObject({ azimuth: 65, elevation: 89.9 });
    zoom(0.5);
    expect(camera().distance).toBe(3.5);
    expect(now().history.past).toHaveLength(1);
  });
  it('shifts the picture by what the hand moves: half its height up moves the target by half of what is seen', () => {
    now().edit('Level', (p) => withScene(p, 'cameras', { azimuth: 0, elevation: 0, distance: 10, focalLength: 18 }));
    pan(0, 0.5);
    // 18 mm on 36 mm sees 20 m across at 10 m.
    expect((camera().target as unknown as number[]).map((x) => Number(x.toFixed(3)))).toEqual([0, 10, 0]);
    pan(0.25, 0);
    expect((camera().target as unknown as number[])[0]).toBeCloseTo(5, 3);
  });
  it('a moving camera is moved as a whole and keeps moving', () => {
    now().setValue(
      'Motion',
      { owner: { type: 'scene', item: now().piece.scene.cameras[0].id }, param: 'azimuth' },
      { motion: 'wave', shape: 'sine', low: 0, high: 40, turns: 1, phase: 0 },
    );
    orbit(10, 0);
    expect(isMoving(camera().azimuth)).toBe(true);
    expect(camera().azimuth).toMatchObject({ low: 10, high: 50 });
  });
});

describe('saving', () => {
  const answers: (() => Response | Promise<Response>)[] = [];
  const sent: { basedOn: number; source: string }[] = [];
  beforeEach(() => {
    answers.length = 0;
    sent.length = 0;
    const store = new Map<string, string>();
    vi.stubGlobal('localStorage', {
      getItem: (k: string) => store.get(k) ?? null,
      setItem: (k: string, v: string) => store.set(k, v),
      removeItem: (k: string) => store.delete(k),
      key: (i: number) => [...store.keys()][i] ?? null,
      get length() {
        return store.size;
      },
    });
    vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
      sent.push(JSON.parse(init.body as string));
      return answers.shift()!();
    });
  });
  afterEach(() => vi.unstubAllGlobals());
  const ok = (revision: number) => () => Response.json({ revision });

  it('names the revision it is based on, and goes on from the new one', async () => {
    answers.push(ok(5), ok(6));
    addStep(ribbon().id, 'smooth');
    await saveNow();
    expect(now()).toMatchObject({ save: 'saved', revision: 5 });
    addStep(ribbon().id, 'smooth');
    await saveNow();
    expect(sent.map((s) => s.basedOn)).toEqual([4, 5]);
    expect(now().revision).toBe(6);
  });
  it('saves again what was changed while it was saving', async () => {
    answers.push(() => {
      addStep(ribbon().id, 'twist');
      return Response.json({ revision: 5 });
    }, ok(6));
    addStep(ribbon().id, 'smooth');
    await saveNow();
    expect(now()).toMatchObject({ save: 'saved', revision: 6 });
    expect(JSON.parse(sent[1].source).ribbons[0].steps.at(-1).kind).toBe('twist');
  });
  it('stops at a conflict and overwrites nothing', async () => {
    answers.push(() => Response.json({ error: 'Changed elsewhere.', head: 9, kept: 10 }, { status: 409 }));
    addStep(ribbon().id, 'smooth');
    await saveNow();
    expect(now()).toMatchObject({ save: 'conflict', conflict: { head: 9, kept: 10 }, revision: 4 });
    addStep(ribbon().id, 'smooth');
    expect(now().save).toBe('conflict');
    await saveNow();
    expect(sent).toHaveLength(1);
  });
  it('keeps the work in the browser while the server is away, and tries again', async () => {
    vi.useFakeTimers();
    answers.push(() => Promise.reject(new TypeError('away')), ok(5));
    addStep(ribbon().id, 'smooth');
    await saveNow();
    expect(now().save).toBe('offline');
    const [backup] = backupsOf('id');
    expect(backup.basedOn).toBe(4);
    expect(JSON.parse(backup.source).ribbons[0].steps).toHaveLength(4);
    await vi.advanceTimersByTimeAsync(5000);
    vi.useRealTimers();
    await vi.waitFor(() => expect(now().save).toBe('saved'), { timeout: 20_000 });
    expect(backupsOf('id')).toEqual([]);
  });
});
