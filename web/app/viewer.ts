import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { whoAsks } from '@/server/people/admit';
import { isOpen } from '@/server/people/open';
import { suffices, type Role, type Viewer } from '@/contract/person';

/** The account behind a page request; without one the browser goes to sign-in, and from there to `to`. */
export async function viewer(to: string, role: Role = 'look'): Promise<Viewer> {
  const person = await whoAsks(await headers());
  if (!person) redirect(`/enter?to=${encodeURIComponent(to)}`);
  if (!suffices(person.role, role)) redirect('/');
  return { person, open: isOpen() };
}
