import { expect, test } from '@playwright/test';
import { kills } from '../trials/kills';
import { requests } from '../trials/requests';

// The short form of what ./maypole trial does at length.
const nothing = () => undefined;

test('whatever is asked of whatever address is answered, and never as a fault', async () => {
  test.setTimeout(120_000);
  const { wrong } = await requests.run(470, 11, nothing, process.env.MAYPOLE_ADDRESS);
  expect(wrong).toEqual([]);
});

test('whatever is killed while people edit, what was acknowledged is there to the letter', async () => {
  test.setTimeout(180_000);
  const { wrong, figures } = await kills.run(3, 11, nothing);
  expect(wrong).toEqual([]);
  expect(figures['saves acknowledged']).toBeGreaterThan(20);
});
