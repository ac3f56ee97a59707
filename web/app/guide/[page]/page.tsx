import { guidePage } from '@maypole/core/guide/pages';
import { notFound } from 'next/navigation';
import { GuidePageOf, GuideWords } from '@/ui/guide/guide-articles';

// The CSP nonce of its scripts is new for every request.
export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: { params: Promise<{ page: string }> }) {
  const { page } = await params;
  return { title: page === 'words' ? 'Words' : (guidePage(page)?.title ?? 'Guide') };
}

/** A page of the guide: a group of declarations, or the words. */
export default async function Page({ params }: { params: Promise<{ page: string }> }) {
  const { page } = await params;
  if (page === 'words') return <GuideWords />;
  if (!guidePage(page)) notFound();
  return <GuidePageOf id={page} />;
}
