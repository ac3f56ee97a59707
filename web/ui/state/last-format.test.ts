import { newPiece } from '@maypole/core/piece/piece';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyPiece, noteFormats } from './last-format';
import { useEditor } from './store';

const kept = new Map<string, string>();
let stop: () => void;

beforeEach(() => {
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
  });
  useEditor.getState().open('id', newPiece('One'), 1);
  stop = noteFormats();
});
afterEach(() => {
  stop();
  kept.clear();
  vi.unstubAllGlobals();
});

describe('a new loop', () => {
  it('has the format and rate that were chosen last, and the same seconds', () => {
    expect(emptyPiece('New')).toEqual({ ...newPiece('New'), scene: expect.anything(), render: expect.anything() });
    useEditor.getState().edit('Size', (p) => ({ ...p, format: { width: 1920, height: 1080 } }));
    expect(emptyPiece('New')).toMatchObject({ format: { width: 1920, height: 1080 }, loop: { frames: 100, fps: 25 } });
    useEditor.getState().edit('Rate', (p) => ({ ...p, loop: { frames: 30, fps: 30 } }));
    expect(emptyPiece('New').loop).toEqual({ frames: 120, fps: 30 });
  });
  it('has not that of a piece that was only opened', () => {
    useEditor.getState().open('other', { ...newPiece('Two'), format: { width: 640, height: 360 } }, 1);
    expect(emptyPiece('New').format).toEqual(newPiece().format);
  });
  it.each(['{', '7', '{"width":0,"height":9}', '{"width":1e9,"height":100}', '{"width":"a"}'])(
    'is plain where what was kept is nothing: %s',
    (text) => {
      kept.set('maypole-last-format', text);
      expect(emptyPiece('New').format).toEqual(newPiece().format);
    },
  );
});
