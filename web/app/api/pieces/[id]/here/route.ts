import { hereBody, pieceId } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { noteHere } from '@/server/http/open-pages';

/** Reports that a page has the piece open; answers who else has, and which version is current. */
export const PUT = route<{ id: string }>(
  { takes: hereBody, who: 'look', body: 1000 },
  async ({ params, body, person }) =>
    Response.json(await noteHere(database(), pieceId.parse(params.id), parseJson(body, hereBody), person!)),
);
