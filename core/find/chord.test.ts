import { describe, expect, it } from 'vitest';
import { actionIds, actionOf } from './actions';
import { chordOf, RESERVED } from './chord';

const press = (key: string, held: Partial<Record<'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey', boolean>> = {}) =>
  chordOf({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

describe('keys in words', () => {
  // Values of `key` are those of the W3C recommendation "UI Events KeyboardEvent key Values".
  it.each([
    ['z', { ctrlKey: true }, 'Ctrl Z'],
    ['Z', { ctrlKey: true, shiftKey: true }, 'Ctrl Shift Z'],
    ['z', { metaKey: true }, 'Ctrl Z'],
    [' ', {}, 'Space'],
    ['ArrowRight', { shiftKey: true }, 'Shift →'],
    ['?', { shiftKey: true }, '?'],
    ['1', {}, '1'],
    ['Delete', {}, 'Delete'],
    ['F2', { altKey: true }, 'Alt F2'],
  ])('%j with %j is %s', (key, held, words) => expect(press(key, held)).toBe(words));

  it.each(['Shift', 'Control', 'Alt', 'Meta', 'Escape', 'Tab', 'Enter', 'Dead', 'Unidentified'])(
    '%s is no shortcut',
    (key) => expect(press(key)).toBeNull(),
  );
});

it('no two actions begin with the same keys, and none with keys of the browser', () => {
  const keys = actionIds.map((id) => actionOf(id).keys).filter((k) => k !== undefined);
  expect(new Set(keys).size).toBe(keys.length);
  expect(keys.filter((k) => RESERVED.includes(k))).toEqual([]);
  // What hands do all day has a key from the start.
  for (const id of [
    'duplicate-ribbon',
    'remove-ribbon',
    'hide-ribbon',
    'add-step',
    'next-ribbon',
    'detail',
    'compare',
    'deliver',
  ] as const)
    expect(actionOf(id).keys, id).toBeTruthy();
});
