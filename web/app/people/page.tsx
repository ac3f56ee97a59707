import { redirect } from 'next/navigation';
import { database } from '@/server/data/db';
import { viewer } from '@/app/viewer';
import { roomUsed } from '@/server/upkeep/room';
import { PeoplePage } from '@/ui/people/people-page';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'People' };

export default async function People() {
  const who = await viewer('/people', 'own');
  if (!who.open) redirect('/');
  return <PeoplePage me={who.person} room={await roomUsed(database())} />;
}
