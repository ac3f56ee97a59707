import { describe, expect, it } from 'vitest';
import { stepKinds } from '../steps/index';
import { hasExample } from './examples';
import { guidePage, guidePages } from './pages';
import { explained, words } from './words';

describe('pages of the guide', () => {
  it('have names and addresses of their own, and every step is on one of them, with an example', () => {
    expect(new Set(guidePages.map((p) => p.id)).size).toBe(guidePages.length);
    const steps = guidePages.flatMap((p) => p.articles).filter((a) => a.example);
    expect(steps.map((a) => a.id).sort()).toEqual(stepKinds.map((k) => k.kind).sort());
    for (const { example } of steps) expect(hasExample(example!)).toBe(true);
  });

  it.each(guidePages.map((p) => [p.title, p] as const))('%s says what each thing does', (_, page) => {
    expect(guidePage(page.id)).toBe(page);
    expect(page.articles.length).toBeGreaterThan(0);
    expect(new Set(page.articles.map((a) => a.id)).size).toBe(page.articles.length);
    for (const { title, help, params } of page.articles) {
      expect(help, title).toMatch(/^[A-Z0-9].{8,}/s);
      for (const p of Object.values(params)) expect(p.title, title).toBeTruthy();
    }
  });
});

describe('words', () => {
  it('stand in the order of the alphabet, once each, explained in sentences', () => {
    const all = words.map((w) => w.word);
    expect(all).toEqual([...all].sort((a, b) => a.localeCompare(b, 'en')));
    expect(new Set(all).size).toBe(all.length);
    for (const { word, text } of words) expect(text, word).toMatch(/^[A-Z].*\.$/);
  });

  it('are found however they are written', () => {
    expect(explained('SEAM')).toContain('meets itself');
    expect(explained('Quick light')).toBeDefined();
    expect(explained('nothing of that sort')).toBeUndefined();
  });
});
