import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PANES, paneSize, pullPane, restoreLayout, togglePane, useLayout, type Pane } from './layout';

const panes = Object.keys(PANES) as Pane[];

describe('panes', () => {
  let store: Map<string, string>;
  beforeEach(() => {
    store = new Map();
    vi.stubGlobal('localStorage', {
      getItem: (k: string) => store.get(k) ?? null,
      setItem: (k: string, v: string) => store.set(k, v),
    });
    restoreLayout();
  });
  afterEach(() => void vi.unstubAllGlobals());

  it.each(panes)('%s is pulled within its limits, and away below them', (pane) => {
    const { least, most, away, usual } = PANES[pane];
    expect(away).toBeLessThan(least);
    expect(usual).toBeGreaterThanOrEqual(least);
    expect(paneSize(pane, most + 500)).toBe(most);
    expect(paneSize(pane, (away + least) / 2)).toBe(least);
    expect(paneSize(pane, away - 1)).toBe(0);
  });
  it('are as they were left at the next visit; a drawer that was pulled away opens again', () => {
    pullPane('panel', 444);
    togglePane('round');
    pullPane('drawer', 10);
    expect(useLayout.getState()).toEqual({ panel: 444, drawer: 0, round: 0 });
    restoreLayout();
    expect(useLayout.getState()).toEqual({ panel: 444, drawer: PANES.drawer.usual, round: 0 });
    togglePane('round');
    expect(useLayout.getState().round).toBe(PANES.round.usual);
  });
  it('work where the browser keeps nothing, and with what it garbled', () => {
    store.set('maypole-layout', '{"panel":"wide","round":1e9');
    restoreLayout();
    expect(useLayout.getState().panel).toBe(PANES.panel.usual);
    store.set('maypole-layout', '{"panel":"wide","round":1e9}');
    restoreLayout();
    expect(useLayout.getState()).toEqual({
      panel: PANES.panel.usual,
      drawer: PANES.drawer.usual,
      round: PANES.round.most,
    });
    vi.stubGlobal('localStorage', {
      getItem: () => {
        throw new Error('blocked');
      },
      setItem: () => {
        throw new Error('blocked');
      },
    });
    restoreLayout();
    pullPane('panel', 500);
    expect(useLayout.getState().panel).toBe(500);
  });
});
