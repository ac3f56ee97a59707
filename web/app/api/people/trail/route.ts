import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { auditBefore } from '@/contract/people';
import { readAuditLog } from '@/server/people/audit-log';

/** Who did what, when, from where; the latest first, older ones by `?before=`. */
export const GET = route({ who: 'own' }, async ({ query }) =>
  Response.json({ trail: await readAuditLog(database(), auditBefore.parse(query.get('before') ?? undefined)) }),
);
