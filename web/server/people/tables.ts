import { sql } from 'drizzle-orm';
import { bigserial, boolean, index, integer, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';
import type { Role } from '../../contract/person';

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const made = () => moment('created_at').notNull().defaultNow();
const changed = () => moment('updated_at').notNull().defaultNow();

/** People, sessions and passwords, as better-auth expects them. */
export const people = pgTable('people', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  role: text('role').$type<Role>().notNull().default('look'),
  /** Whether a code is required after the password. */
  twoFactorEnabled: boolean('two_factor_enabled').notNull().default(false),
  /** Set once the account has ended. */
  endedAt: moment('ended_at'),
  createdAt: made(),
  updatedAt: changed(),
});

export const sessions = pgTable('sessions', {
  id: text('id').primaryKey(),
  expiresAt: moment('expires_at').notNull(),
  token: text('token').notNull().unique(),
  ipAddress: text('ip_address'),
  userAgent: text('user_agent'),
  userId: text('user_id')
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' }),
  /** Last use, to five minutes. */
  seenAt: moment('seen_at').notNull().defaultNow(),
  /** When the password was last given again. */
  confirmedAt: moment('confirmed_at'),
  createdAt: made(),
  updatedAt: changed(),
});

/** Secrets of second factors (RFC 6238) and recovery codes; both encrypted by better-auth. */
export const twoFactors = pgTable('two_factors', {
  id: text('id').primaryKey(),
  userId: text('user_id')
    .notNull()
    .unique()
    .references(() => people.id, { onDelete: 'cascade' }),
  secret: text('secret').notNull(),
  backupCodes: text('backup_codes').notNull(),
  /** Whether a code of it was entered once, so that it is active. */
  verified: boolean('verified').notNull().default(false),
  failedVerificationCount: integer('failed_verification_count').notNull().default(0),
  lockedUntil: moment('locked_until'),
});

export const accounts = pgTable('accounts', {
  id: text('id').primaryKey(),
  accountId: text('account_id').notNull(),
  providerId: text('provider_id').notNull(),
  userId: text('user_id')
    .notNull()
    .references(() => people.id, { onDelete: 'cascade' }),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: moment('access_token_expires_at'),
  refreshTokenExpiresAt: moment('refresh_token_expires_at'),
  scope: text('scope'),
  /** Argon2id, in its own text form. */
  password: text('password'),
  createdAt: made(),
  updatedAt: changed(),
});

export const verifications = pgTable('verifications', {
  id: text('id').primaryKey(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: moment('expires_at').notNull(),
  createdAt: made(),
  updatedAt: changed(),
});

/** Links for creating an account, each once. */
export const invites = pgTable('invites', {
  id: uuid('id').primaryKey().defaultRandom(),
  digest: text('digest').notNull().unique(),
  role: text('role').$type<Role>().notNull(),
  /** For whom, in the owner's words. */
  note: text('note').notNull().default(''),
  expiresAt: moment('expires_at').notNull(),
  usedAt: moment('used_at'),
  createdAt: made(),
});

/** Keys of machines. */
export const keys = pgTable('keys', {
  id: uuid('id').primaryKey().defaultRandom(),
  digest: text('digest').notNull().unique(),
  name: text('name').notNull(),
  role: text('role').$type<Role>().notNull(),
  lastUsedAt: moment('last_used_at'),
  /** Expiry. */
  endsAt: moment('ends_at')
    .notNull()
    .default(sql`now() + interval '365 days'`),
  withdrawnAt: moment('withdrawn_at'),
  createdAt: made(),
});

/** Who did what, when, from where. Repeated events within an hour are one row with a count. */
export const auditLog = pgTable(
  'trail',
  {
    id: bigserial('id', { mode: 'number' }).primaryKey(),
    what: text('what').notNull(),
    /** What it was done to: a piece, a look, a person. */
    on: text('on').notNull().default(''),
    who: text('who').notNull(),
    whoName: text('who_name').notNull(),
    client: text('client').notNull(),
    times: integer('times').notNull().default(1),
    firstAt: moment('first_at').notNull().defaultNow(),
    lastAt: moment('last_at').notNull().defaultNow(),
  },
  (t) => [index('trail_last').on(t.lastAt)],
);
