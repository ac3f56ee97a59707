import { describe, expect, it } from 'vitest';
import { finishParts } from '../finish/parts/index';
import { renderings } from '../output/rendering';
import { sceneListNames, sceneLists } from '../scene/index';
import { newPiece, newRibbon } from '../piece/piece';
import { ANSWERS } from './answers';
import { entries, entryOf } from './entries';
import { QUESTIONS } from './questions';
import { settingsIn } from './settings';
import { Search } from './search';
import { TRADE_WORDS } from './trade-words';

const search = new Search(entries);

const piece = { ...newPiece('Found'), ribbons: [newRibbon('torus', 0, 'Ring')] };
const everything = new Search([...entries, ...settingsIn(piece)]);

describe('what is looked for', () => {
  it.each(QUESTIONS)('“%s” is among the first three', (question, wanted) => {
    const first = everything
      .find(question)
      .slice(0, 3)
      .map((e) => e.id);
    expect(
      first.filter((id) => wanted.split(' ').includes(id)),
      first.join(' '),
    ).not.toEqual([]);
  });
  it('is asked in at least 300 ways', () => {
    expect(QUESTIONS.length).toBeGreaterThanOrEqual(300);
  });
  it('has names that are all there, each once', () => {
    const ids = entries.map((e) => e.id);
    expect(new Set(ids).size).toBe(ids.length);
    const declared = [
      ...sceneListNames.flatMap((list) => sceneLists[list].kinds.all),
      ...finishParts.all,
      ...renderings.all,
    ];
    const values = declared.flatMap((k) => Object.keys(k.params).map((name) => `value:${k.kind}.${name}`));
    expect(Object.keys(TRADE_WORDS).filter((id) => !ids.includes(id) && !values.includes(id))).toEqual([]);
    for (const { leads } of ANSWERS) expect(entryOf(leads).does.type).toMatch(/help|action/);
  });
  it('is everything where nothing is asked, and nothing where nothing fits', () => {
    expect(search.find('')).toHaveLength(entries.length);
    expect(search.find('  ')).toHaveLength(entries.length);
    expect(search.find('zzzqqq')).toEqual([]);
  });
  it('comes first under its own name', () => {
    for (const e of entries.filter((x) => x.sort === 'Step' || x.sort === 'Do'))
      expect(search.find(e.title)[0].title, e.title).toBe(e.title);
  });
});
