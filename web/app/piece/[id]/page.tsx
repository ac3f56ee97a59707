import { notFound } from 'next/navigation';
import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { AppError } from '@/server/http/app-error';
import { viewer } from '@/app/viewer';
import { loadPiece } from '@/server/pieces';
import { OpenPiece } from '@/ui/editor/open-piece';

export const dynamic = 'force-dynamic';

export default async function PiecePage({ params }: { params: Promise<{ id: string }> }) {
  const id = pieceId.safeParse((await params).id);
  if (!id.success) notFound();
  await viewer(`/piece/${id.data}`);
  const stored = await loadPiece(database(), id.data).catch((error: unknown) => {
    if (error instanceof AppError && error.status === 404) notFound();
    throw error;
  });
  return <OpenPiece stored={stored} />;
}
