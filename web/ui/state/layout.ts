import { create } from 'zustand';
import { keepText, keptJson } from './browser-store';

/** Resizable panes of the editor. */
export type Pane = 'panel' | 'drawer' | 'round';

interface PaneSize {
  /** Default size in pixels. */
  readonly usual: number;
  readonly least: number;
  readonly most: number;
  /** Below this size it collapses. */
  readonly away: number;
}

export const PANES: Readonly<Record<Pane, PaneSize>> = {
  panel: { usual: 330, least: 280, most: 640, away: 180 },
  drawer: { usual: 352, least: 288, most: 720, away: 180 },
  round: { usual: 204, least: 204, most: 620, away: 110 },
};

/** Width of panel and drawer, height of the round, in pixels; 0 if collapsed. */
type Layout = Readonly<Record<Pane, number>>;

const USUAL: Layout = { panel: PANES.panel.usual, drawer: PANES.drawer.usual, round: PANES.round.usual };
const KEY = 'maypole-layout';

/** Size of a pane whose edge is dragged to `to`: within its limits, or 0 for collapsed. */
export function paneSize(pane: Pane, to: number): number {
  const { least, most, away } = PANES[pane];
  return to < away ? 0 : Math.round(Math.max(least, Math.min(most, to)));
}

function kept(): Layout {
  const stored = keptJson(KEY, {}) as Partial<Record<Pane, unknown>>;
  const size = (pane: Pane) => (typeof stored[pane] === 'number' ? paneSize(pane, stored[pane]) : USUAL[pane]);
  // A drawer is opened by its button, which must work even if it was collapsed.
  return { panel: size('panel'), drawer: size('drawer') || USUAL.drawer, round: size('round') };
}

export const useLayout = create<Layout>()(() => USUAL);

/** Restores the layout of an earlier visit. */
export function restoreLayout(): void {
  useLayout.setState(kept());
}

export function pullPane(pane: Pane, to: number): void {
  useLayout.setState({ [pane]: paneSize(pane, to) });
  keepText(KEY, JSON.stringify(useLayout.getState()));
}

/** Collapses a pane, or restores its default size. */
export function togglePane(pane: Pane): void {
  pullPane(pane, useLayout.getState()[pane] === 0 ? PANES[pane].usual : 0);
}
