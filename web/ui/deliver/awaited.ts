import type { RenderSummary } from '@/contract/renders';
import { RequestTrouble } from '../api';
import { tell, tellTrouble } from '../parts/toasts';
import { dropText, keepText, keptJson } from '../state/browser-store';
import { renderOf } from './render-api';

/**
 * Renders begun by this tab: it draws those in quick light, and announces their end, on whatever page and also after a
 * reload.
 */
const KEY = 'maypole-awaited';
/** Milliseconds between polls. */
const EVERY = 3000;

const awaited = new Set<string>();
let timer: ReturnType<typeof setTimeout> | undefined;

/** Whether this tab announces the end of a render anyway. */
export const isAwaited = (id: string) => awaited.has(id);

/** Waits for the end of a render, and draws what is in quick light until then. */
export function awaitRender(id: string): void {
  awaited.add(id);
  goOn();
}

/** Continues waiting after a reload. */
export function resumeAwaiting(): void {
  const kept = keptJson(KEY, [], 'session');
  if (Array.isArray(kept)) for (const id of kept) if (typeof id === 'string') awaited.add(id);
  if (awaited.size > 0) goOn();
}

function goOn(): void {
  if (awaited.size > 0) keepText(KEY, JSON.stringify([...awaited]), 'session');
  else dropText(KEY, 'session');
  clearTimeout(timer);
  if (awaited.size > 0) timer = setTimeout(() => void look(), EVERY);
}

async function look(): Promise<void> {
  let draws = false;
  for (const id of [...awaited])
    try {
      const render = await renderOf(id);
      if (!goesOn(render)) {
        awaited.delete(id);
        tellOfEnd(render);
      } else if (render.order.light === 'quick' && !render.paused) draws = true;
    } catch (error) {
      // A deleted render has no end to announce; an unreachable server comes back.
      if (error instanceof RequestTrouble && error.status === 404) awaited.delete(id);
    }
  if (draws) (await import('./lending')).goOnLending();
  goOn();
}

/** Whether frames or files of a render are still to be made. */
export const goesOn = (r: RenderSummary) => r.state === 'frames' || r.state === 'files';

/** Announces how a render ended. */
export function tellOfEnd(render: RenderSummary): void {
  const { name, state, files } = render;
  if (state === 'failed') tellTrouble(`${name}: ${render.message ?? 'it could not be rendered.'}`);
  if (state === 'done' && !render.estimate)
    tell(`${name}: ${files.length === 1 ? 'its file is' : `${files.length} outputs are`} ready.`);
}
