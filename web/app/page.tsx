import { listPieces } from '@/server/pieces';
import { database } from '@/server/db';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';

export default async function ShelfPage() {
  return <Shelf initial={await listPieces(database())} />;
}
