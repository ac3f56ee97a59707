import { z } from 'zod';
import { body, exactText, text, whole, wholeText } from './fields';
import { KEY_DAYS, PASSWORD } from './auth-figures';
import { ROLES } from './person';

const role = z.enum(ROLES, `A role is one of ${ROLES.join(', ')}.`);
const email = z.email('This is not an e-mail address.').max(200, 'This address is longer than 200 letters.');
const password = exactText('A password', PASSWORD.most)
  .min(PASSWORD.least, `A password has at least ${PASSWORD.least} letters; a few words are good.`)
  // Blanks inside a password count; a password of blanks only is no secret.
  .refine((x) => x.trim().length > 0, 'A password of blanks alone is none; a few words are good.');
const name = text('A name', 80, 1);

/** To sign in; someone guessing is told no password rules. */
export const enterBody = body({
  email: exactText('An address', 200),
  password: exactText('A password', 1000),
});
export const passwordBody = body({
  password: exactText('Your present password', 1000),
  next: password,
});
/** The password once more, of somebody who is signed in. */
export const againBody = body({ password: exactText('Your password', 1000) });
/** A code of the second factor, or a recovery code. */
export const codeBody = body({ code: text('A code', 40, 1) });
export const acceptBody = body({ token: exactText('The token of an invitation', 200), name, email, password });
export const roleBody = body({ role });
export const inviteBody = body({ role, note: text('A note', 80).default('') });
export const keyBody = body({
  name,
  role: z.enum(['look', 'edit', 'run'], 'A machine looks, edits or runs.'),
  days: whole('The days that a key is good for', 1, KEY_DAYS.most).default(KEY_DAYS.usual),
});
export const personId = z.string().regex(/^[A-Za-z0-9_-]{8,64}$/, 'This is nobody’s number.');
export const sessionId = z.string().regex(/^[A-Za-z0-9_-]{8,64}$/, 'This is the number of no session.');
export const rowId = z.uuid('This is not the number of a row.');
export const auditBefore = wholeText('“before”', 1, 2 ** 53 - 1).optional();
