import { expect, it } from 'vitest';
import { droppedFiles, MOST_FILES, type Dropped } from './dropped';

const file = (name: string) => new File(['{}'], name);
const fileEntry = (name: string) => ({
  isDirectory: false,
  name,
  file: (done: (f: File) => void) => done(file(name)),
});
/** A folder that gives its entries two at a time, as browsers give them a hundred at a time. */
const folder = (name: string, entries: object[]) => ({
  isDirectory: true,
  name,
  createReader: () => {
    const left = [...entries];
    return { readEntries: (done: (e: object[]) => void) => done(left.splice(0, 2)) };
  },
});
const dropped = (entry: object | null, own: File | null = null) =>
  ({ getAsFile: () => own, webkitGetAsEntry: () => entry }) as Dropped;
const names = async (items: Dropped[]) => (await droppedFiles(items)).map((f) => f.name);

it('takes what was dropped by itself, whatever it is called, and of folders what may be a piece, in order', async () => {
  const studio = folder('studio', [
    fileEntry('10.json'),
    fileEntry('notes.txt'),
    fileEntry('2.maypole.json'),
    fileEntry('.hidden.json'),
    folder('old', [fileEntry('older.json'), folder('empty', [])]),
  ]);
  expect(await names([dropped(fileEntry('a'), file('picture.png')), dropped(studio)])).toEqual([
    'picture.png',
    '2.maypole.json',
    '10.json',
    'older.json',
  ]);
});

it('goes on where a browser knows no folders, and where something that is no file was dropped', async () => {
  expect(await names([{ getAsFile: () => file('piece.json') }, dropped(null)])).toEqual(['piece.json']);
});

it('takes no more than there may be, however many there are', async () => {
  const many = folder(
    'many',
    Array.from({ length: MOST_FILES + 50 }, (_, i) => fileEntry(`${i}.json`)),
  );
  expect(await droppedFiles([dropped(many)])).toHaveLength(MOST_FILES);
});
