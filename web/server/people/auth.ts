import { hash, verify } from '@node-rs/argon2';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { twoFactor } from 'better-auth/plugins/two-factor';
import { database } from '../data/db';
import { AppError } from '../http/app-error';
import { PASSWORD } from '../../contract/auth-figures';
import type { Person, Role } from '../../contract/person';
import { accounts, people, sessions, twoFactors, verifications } from './tables';

/** Argon2id with 19 MiB, two passes and one lane: the first choice of the OWASP Password Storage Cheat Sheet. */
export const ARGON = { /** Argon2id. */ algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** Days after which a session ends regardless of use. */
const SESSION_DAYS = 14;

/**
 * Accounts and sessions by better-auth: a maintained library whose sessions, cookies and password checks many have
 * reviewed. Its own routes are not exposed; ours call what they need.
 */
function make() {
  const secret = process.env.MAYPOLE_SECRET;
  if (!secret) throw new Error('MAYPOLE_SECRET is not set; start with ./maypole start --open, which sets it.');
  return betterAuth({
    secret,
    baseURL: process.env.MAYPOLE_PUBLIC_ADDRESS ?? 'https://localhost',
    appName: 'Maypole',
    telemetry: { enabled: false },
    logger: { disabled: true },
    database: drizzleAdapter(database(), {
      provider: 'pg',
      schema: {
        user: people,
        session: sessions,
        account: accounts,
        verification: verifications,
        twoFactor: twoFactors,
      },
    }),
    user: { additionalFields: { role: { type: 'string', input: false, required: false } } },
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: PASSWORD.least,
      maxPasswordLength: PASSWORD.most,
      password: {
        hash: (password) => hash(password, ARGON),
        verify: ({ hash: kept, password }) => verify(kept, password),
      },
    },
    session: {
      expiresIn: SESSION_DAYS * 86_400,
      disableSessionRefresh: true,
      additionalFields: {
        seenAt: { type: 'date', input: false, required: false },
        confirmedAt: { type: 'date', input: false, required: false },
      },
    },
    // Codes of RFC 6238, and ten recovery codes; attempts are limited per sign-in and per account.
    plugins: [twoFactor({ issuer: 'Maypole' })],
    advanced: {
      // The library's own prefix would be the weaker __Secure-.
      useSecureCookies: false,
      cookiePrefix: '__Host-maypole',
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax', secure: true, path: '/' },
      // Our gateway knows the client address.
      ipAddress: { ipAddressHeaders: ['x-maypole-client'] },
    },
  });
}

declare global {
  var maypoleAuth: ReturnType<typeof make> | undefined;
}

export function auth(): ReturnType<typeof make> {
  return (globalThis.maypoleAuth ??= make());
}

/** Makes a person with a password. */
export async function makePerson(given: {
  name: string;
  email: string;
  password: string;
  role: Role;
}): Promise<Person> {
  const { internalAdapter, password } = await auth().$context;
  const email = given.email.toLowerCase();
  if (await internalAdapter.findUserByEmail(email))
    throw new AppError(409, `There is an account for ${email} already. Sign in with it, or use another address.`);
  const user = await internalAdapter.createUser(
    {
      name: given.name,
      email,
      emailVerified: true,
      role: given.role,
    },
    { method: 'admin' },
  );
  await internalAdapter.linkAccount({
    userId: user.id,
    providerId: 'credential',
    accountId: user.id,
    password: await password.hash(given.password),
  });
  return { id: user.id, name: given.name, role: given.role };
}
