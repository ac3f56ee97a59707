import { expect, it } from 'vitest';
import { shownJson } from './json-words';

it.each([null, true, 0, -0, 1e300, NaN, 'a"b\n', [], {}, [1, [2, {}]], { a: { b: [null, 'x'] }, c: false }])(
  '%j is shown as JSON writes it',
  (value) => expect(shownJson(value, 60)).toBe(JSON.stringify(value)),
);

it('is cut at any length where JSON would be longer', () => {
  const value = { name: 'Dew Point', list: [1, 2, { deep: ['x', null] }] };
  const whole = JSON.stringify(value);
  for (let most = 1; most < whole.length; most++) expect(shownJson(value, most)).toBe(`${whole.slice(0, most - 1)}…`);
  expect(shownJson(value, whole.length)).toBe(whole);
});

it('a value of any depth or size is shown at once', () => {
  let deep: unknown = [];
  for (let i = 0; i < 1_000_000; i++) deep = [deep];
  expect(shownJson(deep, 8)).toBe('[[[[[[[…');
  expect(shownJson('x'.repeat(1e7), 5)).toBe('"xxx…');
  expect(shownJson(undefined, 40)).toBe('undefined');
});
