import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { POST } from './route';

const [WIDE, TALL, PICTURES] = [32, 24, 4];
const ask = (body: Uint8Array, query: string) =>
  POST(new Request(`http://127.0.0.1/api/sheets/movie${query}`, { method: 'POST', body: Buffer.from(body) }));
const film = () =>
  sharp({ create: { width: WIDE, height: TALL * PICTURES, channels: 3, background: '#d9483b' } })
    .png()
    .toBuffer();
const sentence = async (response: Response) => ((await response.json()) as { error: string }).error;

describe('a film as a movie', () => {
  it('comes back as an MP4', async () => {
    const answer = await ask(await film(), `?pictures=${PICTURES}&fps=4`);
    expect(answer.status).toBe(200);
    expect(answer.headers.get('Content-Type')).toBe('video/mp4');
    // ISO/IEC 14496-12: a file begins with its type.
    expect(Buffer.from(await answer.arrayBuffer()).toString('latin1', 4, 8)).toBe('ftyp');
  });
  it('is refused in a sentence where it is none, or does not fall into so many pictures', async () => {
    const none = await ask(Buffer.from('no picture'), '?pictures=4&fps=4');
    expect([none.status, await sentence(none)]).toEqual([400, expect.stringContaining('not a PNG picture')]);
    const odd = await ask(await film(), '?pictures=5&fps=4');
    expect([odd.status, await sentence(odd)]).toEqual([400, expect.stringContaining('does not fall into 5 pictures')]);
    const fast = await ask(await film(), '?pictures=4&fps=1e9');
    expect(fast.status).toBe(400);
    expect((await ask(await film(), '')).status).toBe(400);
  });
});
