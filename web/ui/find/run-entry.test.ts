import { entries } from '@maypole/core/find/entries';
import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { useEditor } from '../state/store';
import { runEntry } from './run-entry';

vi.mock('../state/player', () => ({ goTo: vi.fn(), stepFrames: vi.fn(), togglePlay: vi.fn(), pause: vi.fn() }));
vi.mock('../parts/toasts', () => ({ tell: vi.fn(), tellTrouble: vi.fn() }));

const ring: Piece = {
  ...newPiece('Ring'),
  ribbons: [{ ...newRibbon('torus', 0, 'Ring'), steps: [newStep('torus'), newStep('twist', { angle: 40 })] }],
};
const around = {
  go: vi.fn(),
  toggleDusk: vi.fn(),
  press: vi.fn(),
  fetchFile: vi.fn(),
  origin: () => 'https://maypole.example',
};
beforeEach(() => {
  useEditor.getState().open('id', ring, 1);
  useEditor.setState({ drawer: null });
  around.go.mockClear();
});
const run = (id: string) =>
  runEntry(
    entries.find((e) => e.id === id)!,
    around,
  );
const piece = () => useEditor.getState().piece;

describe('an entry of the command field', () => {
  it.each(entries.map((e) => [e.title, e] as const))('%s leaves a document that can be saved', (_, entry) => {
    runEntry(entry, around);
    const read = readPiece(writePiece(piece()));
    expect(read.ok ? '' : read.message).toBe('');
    // What adds something adds it, and takes it back with one undo.
    if (['action', 'help', 'answer'].includes(entry.does.type)) return;
    const there = entry.does.type === 'part' && ['base', 'metal'].includes(entry.does.kind);
    if (there) return expect(useEditor.getState().history.past).toHaveLength(0);
    expect(piece()).not.toEqual(ring);
    expect(useEditor.getState().history.past).toHaveLength(1);
    useEditor.getState().undo();
    expect(piece()).toEqual(ring);
  });
  it('adds a step to the chosen ribbon, and a form as a ribbon of its own', () => {
    run('step:bend');
    expect(piece().ribbons[0].steps.map((s) => s.kind)).toEqual(['torus', 'twist', 'bend']);
    run('step:sphere');
    expect(piece().ribbons.map((r) => r.steps[0].kind)).toEqual(['torus', 'sphere']);
    // The new one is chosen, so that what comes next goes there.
    run('step:taper');
    expect(piece().ribbons[1].steps.map((s) => s.kind)).toEqual(['sphere', 'taper']);
  });
  it('puts a part of a finish in its place, and switches one on that was off', () => {
    const kinds = () => piece().ribbons[0].finishes[0].parts.map((p) => p.kind);
    run('part:glow');
    run('part:glass');
    const [glass, glow] = ['glass', 'glow'].map((k) => kinds().indexOf(k));
    expect(glass).toBeGreaterThan(-1);
    expect(glow).toBeGreaterThan(glass);
    const before = kinds();
    useEditor.getState().edit('Off', (p) => ({
      ...p,
      ribbons: p.ribbons.map((r) => ({
        ...r,
        finishes: r.finishes.map((f) => ({ ...f, parts: f.parts.map((x) => ({ ...x, on: x.kind !== 'glow' })) })),
      })),
    }));
    run('part:glow');
    expect(kinds()).toEqual(before);
    expect(piece().ribbons[0].finishes[0].parts[glow].on).toBe(true);
  });
  it('opens what it is about, and goes to other pages', () => {
    run('do:history');
    expect(useEditor.getState().drawer).toBe('history');
    run('air:fog');
    expect(useEditor.getState().drawer).toBe('scene');
    run('output:gif');
    expect(useEditor.getState().drawer).toBe('deliver');
    run('do:renders');
    expect(around.go).toHaveBeenCalledWith('/renders');
  });
});
