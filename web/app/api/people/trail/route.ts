import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { auditBefore } from '@/contract/people';
import { readAuditLog } from '@/server/people/audit-log';

/** The audit log, latest first; older events by `?before=`. */
export const GET = route({ who: 'own' }, async ({ query }) =>
  Response.json({ trail: await readAuditLog(database(), auditBefore.parse(query.get('before') ?? undefined)) }),
);
