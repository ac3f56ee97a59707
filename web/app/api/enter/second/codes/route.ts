import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { auth } from '@/server/people/auth';
import { againBody } from '@/contract/people';
import { assertOpen } from '@/server/people/open';
import { byPassword } from '@/server/people/own-password';
import { ownSession } from '@/server/people/sessions';

/** Makes new recovery codes, shown once; earlier ones become void. */
export const POST = route(
  { takes: againBody, who: 'look', body: 2000, deed: 'made new codes for paper' },
  async (call) => {
    assertOpen('so nobody signs in');
    const { headers } = call.request;
    await ownSession(headers);
    const body = parseJson(call.body, againBody);
    const answer = await byPassword(call, () => auth().api.generateBackupCodes({ body, headers, asResponse: true }));
    const { backupCodes } = (await answer.json()) as { backupCodes: string[] };
    return Response.json({ codes: backupCodes });
  },
);
