import { afterEach, describe, expect, it, vi } from 'vitest';
import { Lender, shareFrames, type LentFrame } from './lent-scene';

const ports: MessagePort[] = [];
afterEach(() => {
  for (const port of ports.splice(0)) port.close();
  vi.unstubAllGlobals();
});

const frame = (id: number): LentFrame => ({ id, lent: [], files: [] });

describe('frames that another worker lays out', () => {
  it('come by their jobs: what came before is no answer, and what is there already is', async () => {
    const { port1, port2 } = new MessageChannel();
    ports.push(port1, port2);
    const lender = new Lender(port1);
    const wanted = lender.frameOf(2);
    port2.postMessage(frame(1));
    port2.postMessage(frame(2));
    expect(await wanted).toEqual(frame(2));
    expect(await lender.frameOf(2)).toEqual(frame(2));
  });

  it('are shared by the first worker with each of the others where the page may share memory, and not elsewhere', () => {
    const worker = () => ({ postMessage: vi.fn<(message: object, ports: MessagePort[]) => void>() });
    const crew = [worker(), worker(), worker()];
    const share = () => shareFrames(crew as unknown as Worker[]);
    vi.stubGlobal('crossOriginIsolated', false);
    share();
    for (const { postMessage } of crew) expect(postMessage).not.toHaveBeenCalled();
    vi.stubGlobal('crossOriginIsolated', true);
    share();
    const [first, ...others] = crew.map(({ postMessage }) => postMessage.mock.calls);
    for (const [call] of [first, ...others]) ports.push(...call[1]);
    expect(first[0][0]).toMatchObject({ type: 'lend' });
    expect(first[0][1]).toHaveLength(2);
    for (const [[message, given]] of others) expect(message).toEqual({ type: 'borrow', from: given[0] });
  });
});
