import { newPiece } from '@maypole/core/piece/piece';
import { beforeEach, describe, expect, it } from 'vitest';
import { useEditor } from '../state/store';
import { setTrueLight, useTrueLight } from '../state/true-light';
import { timeWords } from './estimate';
import { beginTrying, endTrying, useTrying } from './trying';

const editor = () => useEditor.getState();
const setRender = (values: object) =>
  editor().edit('Rendering', (p) => ({
    ...p,
    render: { ...p.render, values: { ...p.render.values, ...values } },
  }));

beforeEach(() => {
  endTrying();
  editor().open('one', newPiece('Tried'), 1);
  useEditor.setState({ drawer: 'deliver', light: 'quick', mode: 'edges', detail: 'draft', subframes: 64 });
  setTrueLight({ least: 8, most: 100, error: 6, denoise: true });
});

describe('a frame that is tried as it is delivered', () => {
  it('stands in the light, samples and detail of the delivery, goes along with them, and leaves the view as it was', () => {
    setRender({ light: 'true', samples: 12, error: 3, denoise: false });
    beginTrying();
    expect(editor()).toMatchObject({ light: 'true', mode: 'shaded', detail: 'final' });
    expect(useTrueLight.getState()).toMatchObject({ least: 12, most: 12, error: 3, denoise: false });
    setRender({ samples: 300 });
    expect(useTrueLight.getState()).toMatchObject({ least: 16, most: 300 });
    setTrueLight({ map: true });
    setRender({ light: 'quick', subframes: 20, look: 'clay' });
    expect(editor()).toMatchObject({ light: 'quick', mode: 'clay', subframes: 20 });
    endTrying();
    expect(editor()).toMatchObject({ light: 'quick', mode: 'edges', detail: 'draft', subframes: 64 });
    expect(useTrueLight.getState()).toMatchObject({ least: 8, most: 100, error: 6, denoise: true, map: false });
  });
  it('ends with its drawer, and where the view is asked for something else, which stays', () => {
    setRender({ light: 'true', samples: 50 });
    beginTrying();
    useEditor.setState({ drawer: null });
    expect(useTrying.getState().before).toBeNull();
    expect(editor()).toMatchObject({ light: 'quick', mode: 'edges' });
    useEditor.setState({ drawer: 'deliver' });
    beginTrying();
    useEditor.setState({ mode: 'normals' });
    expect(useTrying.getState().before).toBeNull();
    expect(editor()).toMatchObject({ light: 'true', mode: 'normals' });
    expect(useTrueLight.getState().most).toBe(100);
  });
});

describe('the time of a whole render', () => {
  const worker = (name: string, light: 'quick' | 'true', silent = 0) => ({
    id: name,
    name,
    light,
    threads: 2,
    by: '',
    other: false,
    silent,
  });
  const render = { order: { light: 'true' } } as Parameters<typeof timeWords>[2];
  it('is told with one machine, and with those that are here and make this light', () => {
    expect(timeWords(1200, [worker('a', 'true')], render)).toBe('about 20 min with one machine like this');
    const others = [worker('a', 'true'), worker('b', 'true'), worker('c', 'quick'), worker('d', 'true', 300)];
    expect(timeWords(1200, others, render)).toBe(
      'about 10 min with the 2 machines that are here, about 20 min with one',
    );
  });
});
