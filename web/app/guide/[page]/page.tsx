import { guidePage } from '@maypole/core/guide/pages';
import { notFound } from 'next/navigation';
import { GuidePageOf, GuideWords } from '@/ui/guide/guide-articles';

// Its scripts have the number that is new with every request.
export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: { params: Promise<{ page: string }> }) {
  const { page } = await params;
  return { title: page === 'words' ? 'Words' : (guidePage(page)?.title ?? 'Guide') };
}

/** A page of the guide: of a group of declarations, or of words. */
export default async function Page({ params }: { params: Promise<{ page: string }> }) {
  const { page } = await params;
  if (page === 'words') return <GuideWords />;
  if (!guidePage(page)) notFound();
  return <GuidePageOf id={page} />;
}
