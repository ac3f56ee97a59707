import { bigserial, boolean, index, integer, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';
import type { Role } from './person';

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const made = () => moment('created_at').notNull().defaultNow();
const changed = () => moment('updated_at').notNull().defaultNow();

/** People, their sessions and passwords, in the form that better-auth has them. */
export const people = pgTable('people', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  role: text('role').$type<Role>().notNull().default('look'),
  /** Set once they may not come in any more. */
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
  createdAt: made(),
  updatedAt: changed(),
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

/** Links by which somebody may make an account, once. */
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
  withdrawnAt: moment('withdrawn_at'),
  createdAt: made(),
});

/** Who did what, when, from where. The same thing done again within an hour is one row with the times counted. */
export const trail = pgTable(
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
