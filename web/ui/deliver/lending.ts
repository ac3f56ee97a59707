import { create } from 'zustand';
import { Lender } from '@/engine/lend/lend';
import { lendSource } from './render-api';

interface Lending {
  /** Whether this browser draws frames in quick light for others. */
  readonly on: boolean;
  readonly drawn: number;
  /** Why it is stuck, in words; null if it is not. */
  readonly trouble: string | null;
}

export const useLending = create<Lending>()(() => ({ on: false, drawn: 0, trouble: null }));

let controller: AbortController | null = null;
/** The user has stopped this browser from drawing; a later render starts it again. */
let declined = false;

/** Milliseconds after a failure until the next attempt. */
const REST = 3000;

/** Lends this browser's graphics card until it is stopped or, for one's own renders, until nothing is left to draw. */
export function lend(forGood: boolean, { key, name }: { key?: string; name?: string } = {}): void {
  declined = false;
  if (controller) return useLending.setState((s) => ({ on: s.on || forGood }));
  const own = (controller = new AbortController());
  useLending.setState({ on: forGood, trouble: null });
  const lender = new Lender(lendSource(`tab-${randomId()}`, name ?? browserName(), key));
  const leave = () => lender.leave();
  window.addEventListener('pagehide', leave);
  void (async () => {
    let empty = 0;
    while (!own.signal.aborted) {
      try {
        if (await lender.next(own.signal)) {
          useLending.setState((s) => ({ drawn: s.drawn + 1, trouble: null }));
          empty = 0;
        } else if (!useLending.getState().on && ++empty > 1) break;
      } catch (error) {
        if (own.signal.aborted) break;
        useLending.setState({ trouble: error instanceof Error ? error.message : 'Frames cannot be drawn here.' });
        if (!useLending.getState().on && ++empty > 3) break;
        await new Promise((resolve) => setTimeout(resolve, REST));
      }
    }
    window.removeEventListener('pagehide', leave);
    lender.dispose();
    if (controller === own) controller = null;
  })();
}

/** Continues drawing what was begun here, unless the user has stopped it. */
export function goOnLending(): void {
  if (!declined) lend(false);
}

/** @param told whether the user stopped it, rather than leaving the page */
export function stopLending(told = true): void {
  declined = told;
  controller?.abort();
  controller = null;
  useLending.setState({ on: false, trouble: null });
}

/** Over plain HTTP browsers offer randomUUID on localhost only. */
const randomId = () =>
  [...crypto.getRandomValues(new Uint8Array(12))].map((b) => b.toString(16).padStart(2, '0')).join('');

function browserName(): string {
  const { userAgent } = navigator;
  const kind = /Mobile/.test(userAgent) ? 'Browser on a phone' : 'Browser';
  return kind;
}
