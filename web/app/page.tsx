import { listPieces } from '@/server/pieces';
import { database } from '@/server/db';
import { viewer } from '@/app/viewer';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  const who = await viewer('/');
  return <Shelf initial={await listPieces(database())} viewer={who} />;
}
