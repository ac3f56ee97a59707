import type { KeptSheet } from '@maypole/core/explore/sheet-settings';
import type { Bundle } from '@maypole/core/piece/bundle';
import type { LookKind } from '@maypole/core/looks/look';
import type { Line } from '@/contract/line';
import { UNATTENDED } from '@/contract/headers';
import type {
  Around,
  Conflict,
  KeptAsset,
  KeptLook,
  PastOfPiece,
  PieceSummary,
  StoredPiece,
  StoredRevision,
  SeveralEdit,
} from '@/contract/pieces';

/** A refused request; the message is a sentence for the user. */
export class RequestTrouble extends Error {
  override readonly name = 'RequestTrouble';
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Sends a request; throws a RequestTrouble with the server's sentence if it is refused. */
export async function ask(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new RequestTrouble(
      0,
      'Maypole’s server does not answer. Start it again with ./maypole start; what you made is still here.',
    );
  }
  if (response.ok || response.status === 409) return response;
  const body = (await response.json().catch(() => null)) as { error?: string } | null;
  throw new RequestTrouble(response.status, body?.error ?? `The server answered ${response.status}.`);
}

/** A request with a JSON body. */
export const json = (body: unknown, method: string): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

/** A request that the page repeats by itself: it does not count as activity of the user. */
export const unattended = (init: RequestInit = {}): RequestInit => ({
  ...init,
  headers: { ...(init.headers as Record<string, string> | undefined), [UNATTENDED]: '1' },
});

export async function listPieces(bin = false): Promise<PieceSummary[]> {
  return ((await (await ask(`/api/pieces${bin ? '?bin=1' : ''}`)).json()) as { pieces: PieceSummary[] }).pieces;
}

/** Changes several pieces at once. */
export async function editSeveral(what: SeveralEdit): Promise<void> {
  await ask('/api/pieces', json(what, 'PUT'));
}

export async function createPiece(source: string, assets?: Bundle['assets']): Promise<StoredPiece> {
  return (await ask('/api/pieces', json({ source, assets }, 'POST'))).json();
}

/** Uploads a file to keep beside pieces; pieces name it by its SHA-256. */
export async function keepAsset(name: string, bytes: Blob): Promise<KeptAsset> {
  return (await ask(`/api/assets?name=${encodeURIComponent(name)}`, { method: 'POST', body: bytes })).json();
}

/** The original name of a kept file; null if the server does not have it. */
export async function assetName(fingerprint: string): Promise<string | null> {
  const response = await fetch(`/api/assets/${fingerprint}`, { method: 'HEAD' }).catch(() => null);
  return response?.ok ? decodeURIComponent(response.headers.get('X-Asset-Name') ?? '') : null;
}

export async function listRevisions(id: string): Promise<PastOfPiece> {
  return (await ask(`/api/pieces/${id}/revisions`)).json();
}

export async function loadRevision(id: string, number: number): Promise<StoredRevision> {
  return (await ask(`/api/pieces/${id}/revisions/${number}`)).json();
}

/** Stores a named version beside the piece, and a sheet of its variations with it. */
export async function keepTake(
  id: string,
  source: string,
  mark: string,
  sheet?: KeptSheet,
): Promise<{ revision: number }> {
  return (await ask(`/api/pieces/${id}/revisions`, json({ source, mark, sheet }, 'POST'))).json();
}

/** Turns a strip, pictures stacked in a PNG, into an MP4. */
export async function movieOf(film: Blob, pictures: number, fps: number): Promise<Blob> {
  return (await ask(`/api/sheets/movie?pictures=${pictures}&fps=${fps}`, { method: 'POST', body: film })).blob();
}

export async function markRevision(id: string, number: number, mark: string | null): Promise<void> {
  await ask(`/api/pieces/${id}/revisions/${number}`, json({ mark }, 'PUT'));
}

export async function loadPiece(id: string): Promise<StoredPiece> {
  return (await ask(`/api/pieces/${id}`)).json();
}

/** Saves a document; a conflict is a result, not an error. */
export async function savePiece(
  id: string,
  source: string,
  basedOn: number,
  line: Line | null,
  keepalive = false,
): Promise<{ revision: number } | Conflict> {
  return (
    await ask(`/api/pieces/${id}`, { ...json({ source, basedOn, line: line ?? undefined }, 'PUT'), keepalive })
  ).json();
}

/** Reports that this page has opened or left a piece; returns who else has it open, and the current version. */
export async function tellHere(id: string, page: { client: string; browser: string; gone?: boolean }): Promise<Around> {
  const said = unattended({ ...json(page, 'PUT'), keepalive: page.gone === true });
  return (await ask(`/api/pieces/${id}/here`, said)).json();
}

/** Reports what the shapes of a revision show about its seam. */
export async function tellGaps(id: string, revision: number, gaps: number): Promise<void> {
  await ask(`/api/pieces/${id}/seam`, json({ revision, gaps }, 'PUT'));
}

export async function deletePiece(id: string): Promise<void> {
  await ask(`/api/pieces/${id}`, { method: 'DELETE' });
}

export async function restorePiece(id: string): Promise<void> {
  await ask(`/api/pieces/${id}/restore`, { method: 'POST' });
}

export async function duplicatePiece(id: string): Promise<StoredPiece> {
  return (await ask(`/api/pieces/${id}/duplicate`, { method: 'POST' })).json();
}

/** Kept looks of a kind, newest first. */
export async function listLooks(kind: LookKind): Promise<KeptLook[]> {
  return ((await (await ask(`/api/looks?kind=${kind}`)).json()) as { looks: KeptLook[] }).looks;
}

export async function keepLook(kind: LookKind, source: string): Promise<KeptLook> {
  return (await ask('/api/looks', json({ kind, source }, 'POST'))).json();
}

export async function removeLook(id: string): Promise<void> {
  await ask(`/api/looks/${id}`, { method: 'DELETE' });
}

export async function storeThumbnail(id: string, revision: number, picture: Blob): Promise<void> {
  await ask(`/api/pieces/${id}/thumbnail?revision=${revision}`, { method: 'PUT', body: picture });
}

/** Downloads a file to the user. */
export function download(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
