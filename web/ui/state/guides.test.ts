import { describe, expect, it } from 'vitest';
import { GUIDES, showGuide, useGuides, within } from './guides';

describe('guides', () => {
  it('a format within another touches two of its sides and keeps its own', () => {
    for (const frame of [1, 16 / 9, 0.5])
      for (const { aspect } of GUIDES) {
        if (aspect === null) continue;
        const { width, height } = within(frame, aspect);
        expect(Math.max(width, height)).toBe(1);
        expect((width * frame) / height).toBeCloseTo(aspect, 9);
      }
  });
  it('are shown and put away one by one, always in the same order', () => {
    showGuide('4:5', true);
    showGuide('thirds', true);
    expect(useGuides.getState().shown).toEqual(['thirds', '4:5']);
    showGuide('4:5', false);
    expect(useGuides.getState().shown).toEqual(['thirds']);
    showGuide('thirds', false);
  });
});
