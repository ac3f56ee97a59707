import { redirect } from 'next/navigation';
import { isOpen } from '@/server/people/open';
import { EnterPage } from '@/ui/people/enter-page';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Sign in' };

type Query = Promise<Record<string, string | string[] | undefined>>;

export default async function Enter({ searchParams }: { searchParams: Query }) {
  if (!isOpen()) redirect('/');
  const { invite, to } = await searchParams;
  // Only paths of this application; two slashes would begin another host.
  const place = typeof to === 'string' && /^\/(?![/\\])/.test(to) ? to : '/';
  return <EnterPage invite={typeof invite === 'string' ? invite : undefined} to={place} />;
}
