import { create } from 'zustand';
import { keepText, keptJson } from './browser-store';

/** Guide lines over the picture; they are in no file. */
export const GUIDES = [
  { id: 'thirds', title: 'Thirds', aspect: null },
  { id: 'middle', title: 'Middle', aspect: null },
  { id: '1:1', title: 'Square 1:1', aspect: 1 },
  { id: '16:9', title: 'Wide 16:9', aspect: 16 / 9 },
  { id: '9:16', title: 'Upright 9:16', aspect: 9 / 16 },
  { id: '4:5', title: 'Portrait 4:5', aspect: 4 / 5 },
] as const;

type Guide = (typeof GUIDES)[number]['id'];

const KEY = 'maypole-guides';

function kept(): readonly Guide[] {
  const stored = keptJson(KEY);
  return Array.isArray(stored) ? GUIDES.map((g) => g.id).filter((id) => stored.includes(id)) : [];
}

/** Visible guides, kept by the browser. */
export const useGuides = create<{ readonly shown: readonly Guide[] }>(() => ({ shown: kept() }));

export function showGuide(id: Guide, on: boolean): void {
  const shown = GUIDES.map((g) => g.id).filter((g) => (g === id ? on : useGuides.getState().shown.includes(g)));
  useGuides.setState({ shown });
  keepText(KEY, JSON.stringify(shown));
}

/** Share of a frame that another aspect (width / height) fills in its middle, 0…1 each way. */
export function within(frame: number, aspect: number): { readonly width: number; readonly height: number } {
  return aspect <= frame ? { width: aspect / frame, height: 1 } : { width: 1, height: frame / aspect };
}
