import { z } from 'zod';
import { PASSWORD } from './auth-figures';
import { ROLES } from './person';

z.config({ jitless: true });

const role = z.enum(ROLES, `A role is one of ${ROLES.join(', ')}.`);
const email = z.email('This is not an e-mail address.').max(200, 'This address is longer than 200 letters.');
const password = z
  .string('A password is needed.')
  .min(PASSWORD.least, `A password has at least ${PASSWORD.least} letters; a few words are good.`)
  .max(PASSWORD.most, `A password has at most ${PASSWORD.most} letters.`);
const name = z.string('A name is needed.').trim().min(1, 'A name is needed.').max(80, 'A name has at most 80 letters.');

/** To sign in; no rule on the password is told to somebody who guesses. */
export const enterBody = z.strictObject({
  email: z.string('An address is needed.').max(200),
  password: z.string('A password is needed.').max(1000),
});
export const passwordBody = z.strictObject({
  password: z.string('Your present password is needed.').max(1000),
  next: password,
});
export const acceptBody = z.strictObject({ token: z.string().max(200), name, email, password });
export const roleBody = z.strictObject({ role });
export const inviteBody = z.strictObject({ role, note: z.string().trim().max(80).default('') });
export const keyBody = z.strictObject({
  name,
  role: z.enum(['look', 'edit', 'run'], 'A machine looks, edits or runs.'),
});
export const personId = z.string().regex(/^[A-Za-z0-9_-]{8,64}$/, 'This is nobody’s number.');
export const rowId = z.uuid('This is not the number of a row.');
export const trailBefore = z.coerce
  .number()
  .int()
  .min(1)
  .max(2 ** 53 - 1)
  .optional();
