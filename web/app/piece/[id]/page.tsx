import { notFound } from 'next/navigation';
import { pieceId } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { viewer } from '@/app/viewer';
import { suffices } from '@/contract/person';
import { loadPiece } from '@/server/pieces/pieces';
import { OpenPiece } from '@/ui/editor/open-piece';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** The editor; read-only with `?look=1`, and for the role Look. */
export default async function PiecePage({ params, searchParams }: Props) {
  const id = pieceId.safeParse((await params).id);
  if (!id.success) notFound();
  const look = (await searchParams).look === '1';
  const who = await viewer(`/piece/${id.data}${look ? '?look=1' : ''}`);
  const stored = await loadPiece(database(), id.data).catch((error: unknown) => {
    if (error instanceof AppError && error.status === 404) notFound();
    throw error;
  });
  return <OpenPiece stored={stored} readOnly={look || !suffices(who.person.role, 'edit')} />;
}
