import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { listInvites } from '@/server/people/invites';
import { listKeys } from '@/server/people/keys';
import { listPeople } from '@/server/people/people';
import { roomUsed } from '@/server/upkeep/room';

/** All accounts, open invitations and keys, and the storage used. */
export const GET = route({ who: 'own' }, async () => {
  const db = database();
  const [people, invites, keys, room] = await Promise.all([
    listPeople(db),
    listInvites(db),
    listKeys(db),
    roomUsed(db),
  ]);
  return Response.json({ people, invites, keys, room });
});
