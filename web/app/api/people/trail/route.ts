import { database } from '@/server/db';
import { route } from '@/server/http/route';
import { trailBefore } from '@/server/people/contract';
import { readTrail } from '@/server/people/trail';

/** Who did what, when, from where; the latest first, older ones by `?before=`. */
export const GET = route({ who: 'own' }, async ({ query }) =>
  Response.json({ trail: await readTrail(database(), trailBefore.parse(query.get('before') ?? undefined)) }),
);
