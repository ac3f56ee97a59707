import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { newPiece, type Piece } from '@maypole/core/piece/piece';
import { describe, expect, it } from 'vitest';
import { NO_HISTORY, record, redo, undo } from './undo';

const named = (name: string): Piece => newPiece(name);

describe('undo and redo', () => {
  it('go back and forth through all edits', () => {
    let history = NO_HISTORY;
    const pieces = ['a', 'b', 'c', 'd'].map(named);
    for (let i = 0; i < 3; i++) history = record(history, pieces[i], `edit ${i}`, undefined, i);
    let current = pieces[3];
    const seen: string[] = [];
    for (let back = undo(history, current); back; back = undo(history, current)) {
      ({ piece: current, history } = back);
      seen.push(`${current.name}:${back.label}`);
    }
    expect(seen).toEqual(['c:edit 2', 'b:edit 1', 'a:edit 0']);
    for (let forth = redo(history, current); forth; forth = redo(history, current))
      ({ piece: current, history } = forth);
    expect(current).toBe(pieces[3]);
    expect(undo(NO_HISTORY, current)).toBeNull();
    expect(redo(history, current)).toBeNull();
  });
  it('count a drag as one edit, and a later one as another', () => {
    let history = NO_HISTORY;
    for (let t = 0; t < 500; t += 16) history = record(history, named(`at ${t}`), 'Scrub', 'drag-1', t);
    expect(history.past).toHaveLength(1);
    expect(history.past[0].piece.name).toBe('at 0');
    history = record(history, named('x'), 'Scrub', 'drag-2', 510);
    history = record(history, named('y'), 'Scrub', 'drag-2', 5000);
    expect(history.past).toHaveLength(2);
    for (const t of [6000, 6400, 9000]) history = record(history, named('z'), 'Keys', 'keys', t);
    expect(history.past).toHaveLength(4);
  });
  it('count drags of all that is dragged so: their keys are those of drags', () => {
    // Of these, nothing edits the piece.
    const still = ['round/dial', 'round/playhead', 'parts/pane-edge', 'picture/compare-line', 'picture/viewport'];
    const ui = path.resolve(import.meta.dirname, '..');
    const sources = readdirSync(ui, { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.tsx?$/.test(name) && !name.includes('.test.'))
      .map((name) => [name.replace(/\.tsx?$/, ''), readFileSync(path.join(ui, name), 'utf8')] as const);
    const drags = sources.filter(([, text]) => text.includes('setPointerCapture')).map(([name]) => name);
    expect(drags.length).toBeGreaterThan(8);
    const named = sources.filter(([, text]) => text.includes('newDrag()')).map(([name]) => name);
    for (const name of drags) if (!still.includes(name)) expect(named).toContain(name);
  });
  it('forget the undone once something new is done', () => {
    const history = record(NO_HISTORY, named('a'), 'one', undefined, 0);
    const back = undo(history, named('b'))!;
    expect(back.history.future).toHaveLength(1);
    expect(record(back.history, back.piece, 'two', undefined, 1).future).toHaveLength(0);
  });
});
