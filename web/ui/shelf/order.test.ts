import { describe, expect, it } from 'vitest';
import type { PieceSummary } from '@/contract/pieces';
import { EVERYTHING, isNarrowed, labelsOf, onShelf, type Sought } from './order';

const piece = (
  name: string,
  frames: number | null,
  gaps: number | null,
  trouble: string | null = null,
): PieceSummary => ({
  id: name,
  name,
  revision: 1,
  frames,
  fps: frames && 25,
  width: 160,
  height: 90,
  gaps,
  trouble,
  updatedAt: '',
  thumbnailRevision: null,
  labels: [],
  delivered: false,
  deletedAt: null,
});
const all = [
  piece('Loop 10', 100, 0),
  piece('loop 2', 50, 2),
  piece('Newer', null, null, 'It is newer.'),
  piece('Air', 100, 0),
];
const names = (
  ...[query, sort, only]: [string, 'changed' | 'name' | 'longest' | 'shortest', 'all' | 'closed' | 'open' | 'trouble']
) => onShelf(all, { ...EVERYTHING, query, sort, only }).map((p) => p.name);

describe('the shelf', () => {
  it('stays in the order it comes in, or goes by name or length', () => {
    expect(names('', 'changed', 'all')).toEqual(['Loop 10', 'loop 2', 'Newer', 'Air']);
    expect(names('', 'name', 'all')).toEqual(['Air', 'loop 2', 'Loop 10', 'Newer']);
    expect(names('', 'longest', 'all')).toEqual(['Air', 'Loop 10', 'loop 2', 'Newer']);
    expect(names('', 'shortest', 'all')).toEqual(['Newer', 'loop 2', 'Air', 'Loop 10']);
    // The list that it was given stays as it was.
    expect(all.map((p) => p.name)[0]).toBe('Loop 10');
  });
  it('shows those that are looked for, of one kind', () => {
    expect(names('lo 1', 'name', 'all')).toEqual(['Loop 10']);
    expect(names('', 'name', 'closed')).toEqual(['Air', 'Loop 10']);
    expect(names('', 'name', 'open')).toEqual(['loop 2']);
    expect(names('', 'name', 'trouble')).toEqual(['Newer']);
    expect(names('air', 'name', 'open')).toEqual([]);
  });
  it('goes by labels, and a label is found as a name is', () => {
    const labelled = all.map((p, i) => ({
      ...p,
      labels: [['Wall'], ['Wall', 'Blue'], [], ['Batch 10', 'Batch 9']][i],
    }));
    expect(labelsOf(labelled)).toEqual(['Batch 9', 'Batch 10', 'Blue', 'Wall']);
    const found = (query: string, label = '') =>
      onShelf(labelled, { ...EVERYTHING, query, sort: 'name', label }).map((p) => p.name);
    expect(found('', 'Wall')).toEqual(['loop 2', 'Loop 10']);
    expect(found('blue')).toEqual(['loop 2']);
    expect(found('loop', 'Batch 9')).toEqual([]);
    expect(found('', '')).toHaveLength(4);
    expect(labelsOf(all)).toEqual([]);
  });
  it('tells loops apart by length, by format and by whether they were delivered', () => {
    const some = [
      { ...all[0], name: 'Four', delivered: true },
      { ...all[1], name: 'Two', width: 1080, height: 1080 },
      { ...all[2], name: 'Newer', width: null, height: null },
      { ...all[3], name: 'Ten', frames: 250, width: 1080, height: 1920 },
    ];
    const found = (part: Partial<Sought>) => onShelf(some, { ...EVERYTHING, ...part }).map((p) => p.name);
    expect(found({ length: 'short' })).toEqual(['Two']);
    expect(found({ length: 'middle' })).toEqual(['Four']);
    expect(found({ length: 'long' })).toEqual(['Ten']);
    expect(found({ shape: 'square' })).toEqual(['Two']);
    expect(found({ shape: 'wide' })).toEqual(['Four']);
    expect(found({ shape: 'upright', length: 'long' })).toEqual(['Ten']);
    expect(found({ only: 'delivered' })).toEqual(['Four']);
    expect(found({ only: 'kept' })).toEqual(['Two', 'Ten']);
    expect(found({ query: '1080x1920' })).toEqual(['Ten']);
    expect(found({ query: '1080×1080' })).toEqual(['Two']);
    expect(isNarrowed({ ...EVERYTHING, query: 'x', sort: 'name' })).toBe(false);
    expect(isNarrowed({ ...EVERYTHING, shape: 'wide' })).toBe(true);
  });
});
