import { listPieces } from '@/server/pieces/pieces';
import { database } from '@/server/data/db';
import { viewer } from '@/app/viewer';
import { Shelf } from '@/ui/shelf/shelf';

/** Pieces delivered with the page; the rest is fetched afterwards. */
const FIRST = 48;

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  const who = await viewer('/');
  const pieces = await listPieces(database());
  return <Shelf initial={pieces.slice(0, FIRST)} total={pieces.length} viewer={who} />;
}
