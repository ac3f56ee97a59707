import { expect, test } from './test';
import { load } from '../trials/load';
import { requests } from '../trials/requests';

// The short form of what ./maypole trial does at length; that of kills is among the commands.
const nothing = () => undefined;

test('whatever is asked of whatever address is answered, and never as a fault', async ({ baseURL }) => {
  const { wrong } = await requests.run(470, 11, nothing, baseURL);
  expect(wrong).toEqual([]);
});

test(
  'many who work at once, half-open connections, floods and imports leave others their answers',
  { tag: '@long' },
  async () => {
    const { wrong, figures } = await load.run(1, 1, nothing);
    expect(wrong).toEqual([]);
    expect(figures['of the flood turned away']).toBeGreaterThan(0);
  },
);
