import type { LendSource } from '@/engine/lend/lend';
import type { Queue, RenderChange, RenderDetail } from '@/contract/renders';
import { RENDERER_VERSION } from '@maypole/core/trace/renderer-version';
import type { PartWork } from '@maypole/render/work/source';
import { ask as request, json, RequestTrouble, unattended } from '../api';

export async function queueOf(piece?: string): Promise<Queue> {
  return (await request(`/api/renders${piece ? `?piece=${piece}` : ''}`, unattended())).json();
}
export async function renderOf(id: string): Promise<RenderDetail> {
  return (await request(`/api/renders/${id}`, unattended())).json();
}
export async function startRender(piece: string, revision: number, estimate: boolean): Promise<string> {
  const answer = await request('/api/renders', json({ piece, revision, estimate }, 'POST'));
  return ((await answer.json()) as { id: string }).id;
}
export async function changeRender(id: string, change: RenderChange): Promise<void> {
  await request(`/api/renders/${id}`, json(change, 'PUT'));
}
export async function clearRender(id: string): Promise<void> {
  await request(`/api/renders/${id}`, { method: 'DELETE' });
}
export const framePath = (render: string, index: number, width?: number) =>
  `/api/renders/${render}/frames/${index}${width ? `?width=${width}` : ''}`;
export const filePath = (render: string, file: string) => `/api/renders/${render}/files/${file}`;

/** The work source of a browser that lends its graphics card. */
export function lendSource(id: string, name: string, key?: string): LendSource {
  const shown = key ? { Authorization: `Bearer ${key}` } : undefined;
  const ask = (path: string, init: RequestInit = {}) =>
    request(path, shown ? { ...init, headers: { ...init.headers, ...shown } } : init);
  const lease = (work: PartWork, rest = '') => `/api/work/leases/${work.lease}${rest}`;
  /** A refusal with 409 is a result of most requests, but not here. */
  const strict = async (response: Promise<Response>) => {
    const r = await response;
    if (r.status === 409) throw new RequestTrouble(409, ((await r.json()) as { error: string }).error);
    return r;
  };
  return {
    async claim(signal) {
      const threads = Math.max(1, navigator.hardwareConcurrency || 1);
      const body = json({ id, name, light: 'quick', threads, maker: RENDERER_VERSION }, 'POST');
      const answer = await strict(ask('/api/work/claim', { ...body, signal }));
      return answer.status === 204 ? undefined : ((await answer.json()) as PartWork);
    },
    piece: async (work) => (await strict(ask(lease(work, '/piece')))).text(),
    renew: async (work) => (await ask(lease(work), { method: 'PUT' })).ok,
    giveBack: async (work) => void (await ask(lease(work), { method: 'DELETE', keepalive: true })),
    put: async (work, sheet, picture) =>
      (await strict(ask(lease(work, `/sheets/${sheet}`), { method: 'PUT', body: picture }))).json(),
    async done(work, sheets, figures) {
      await strict(ask(lease(work, '/done'), json({ sheets, ...figures }, 'POST')));
    },
    async failed(work, message, forGood) {
      await ask(lease(work, '/failed'), json({ message, forGood }, 'POST'));
    },
  };
}
