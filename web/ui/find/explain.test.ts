import { expect, it } from 'vitest';
import { explain, type Explained } from './explain';

/** Elements in each other, the outermost first; the last is what the pointer is on. */
function nested(...all: { text?: string; [attribute: string]: string | undefined }[]): Explained {
  return all.reduce<Explained | null>(
    (parentElement, { text = '', ...attributes }) => ({
      parentElement,
      textContent: text,
      getAttribute: (name) => attributes[name] ?? null,
    }),
    null,
  )!;
}

it('says what a value does, wherever in its row the pointer is', () => {
  const row = { text: 'Height 0.20 m', 'data-name': 'Height', 'data-help': 'How far a noise of 1 moves a point.' };
  expect(explain(nested(row, { text: '0.20' }, { text: 'm' }))).toEqual({
    name: 'Height',
    help: 'How far a noise of 1 moves a point.',
    words: [],
  });
});

it('explains the words of a name, and a title where there is one', () => {
  expect(explain(nested({ text: 'Seam closed' }))).toMatchObject({
    name: 'Seam closed',
    help: '',
    words: [{ word: 'Seam' }, { word: 'Closed' }],
  });
  const heading = explain(nested({ text: 'History', title: 'Earlier saves.' }))!;
  expect([heading.name, heading.help]).toEqual(['History', 'Earlier saves.']);
  // The explanation of the word itself is not given twice.
  const scene = explain(nested({ text: 'Scene', title: 'x' }))!;
  expect(explain(nested({ text: 'Scene', title: scene.words[0].text }))!.words).toEqual([]);
});

it('is silent over what says nothing, and over whole passages', () => {
  expect(explain(null)).toBeNull();
  expect(explain(nested({ text: 'A seam in a long passage of text that goes on and on, and on and on' }))).toBeNull();
  expect(explain(nested({ title: 'Far out' }, ...Array.from({ length: 9 }, () => ({ text: '' }))))).toBeNull();
});
