import { verify } from '@node-rs/argon2';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { connect } from '../data/db';
import { peopleAlone } from '../fixtures/alone';
import { Attempts, networkOf } from './attempts';
import { isKnownBrowser, knownBrowserCookie } from './known-browser';
import { ARGON, auth, makePerson } from './auth';
import { accept, invite, invited, listInvites, ownerLink, withdrawInvite } from './invites';
import { keyHolder, makeKey } from './keys';
import { endPerson, listPeople, setRole } from './people';
import { ROLES, suffices } from '../../contract/person';
import { digestOf, newToken } from './secret-token';
import { accounts, invites, keys, people, sessions, auditLog } from './tables';
import { readAuditLog, TRAIL_DAYS, trimAuditLog, writeEvent } from './audit-log';

// The test command starts a throw-away database and names it here.
const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
const PASSWORD = 'wind from the north';
const given = (name: string) => ({ name, email: `${name}@larkhaven.example`, password: PASSWORD });

let giveBack: () => Promise<void>;
beforeAll(async () => {
  giveBack = await peopleAlone();
  process.env.MAYPOLE_SECRET ??= 'y'.repeat(64);
  for (const table of [people, invites, auditLog]) await db.delete(table);
}, 120_000);
afterAll(async () => {
  await giveBack();
  await db.$client.end();
});

describe('roles', () => {
  it('each may what those before it may', () => {
    const may = ROLES.map((role) => ROLES.filter((asked) => suffices(role, asked)).length);
    expect(may).toEqual([1, 2, 3, 4]);
  });
});

describe('two owners who lower, or remove, each other at the same moment', () => {
  it('leave one, always', async () => {
    const owners = async () => (await listPeople(db)).filter((p) => p.role === 'own');
    for (let round = 0; round < 14; round++) {
      const [a, b] = await Promise.all(
        ['a', 'b'].map((n) => makePerson({ ...given(`race-${round}-${n}`), role: 'own' })),
      );
      for (const other of await owners())
        if (other.id !== a.id && other.id !== b.id) await setRole(db, other.id, 'look');
      const away = round % 2 ? (id: string) => endPerson(db, id) : (id: string) => setRole(db, id, 'edit');
      const done = await Promise.allSettled([away(a.id), away(b.id)]);
      expect(done.filter((d) => d.status === 'fulfilled')).toHaveLength(1);
      expect(await owners()).toHaveLength(1);
    }
    // Others begin with nobody.
    for (const table of [people, invites]) await db.delete(table);
  }, 300_000);
});

describe('passwords', () => {
  it('are kept as Argon2id with what the OWASP Password Storage Cheat Sheet asks for at least', async () => {
    // OWASP Password Storage Cheat Sheet, "Argon2id": m=19456 (19 MiB), t=2, p=1.
    expect(ARGON).toMatchObject({ memoryCost: 19_456, timeCost: 2, parallelism: 1 });
    const { id } = await makePerson({ ...given('argon'), role: 'look' });
    const [row] = await db.select().from(accounts).where(eq(accounts.userId, id));
    // The text form of RFC 9106’s reference implementation: kind, version 0x13, parameters, salt, digest.
    expect(row.password).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$[A-Za-z0-9+/]{22,}\$[A-Za-z0-9+/]{43}$/);
    expect(row.password).not.toContain(PASSWORD);
    expect(await verify(row.password!, PASSWORD)).toBe(true);
    expect(await verify(row.password!, `${PASSWORD} `)).toBe(false);
  });
  it('that are wrong, or of nobody, do not let in', async () => {
    const tryIn = (email: string, password: string) =>
      auth().api.signInEmail({ body: { email, password }, asResponse: true });
    expect((await tryIn('argon@larkhaven.example', PASSWORD)).status).toBe(200);
    expect((await tryIn('argon@larkhaven.example', 'something else')).status).toBe(401);
    expect((await tryIn('nobody@larkhaven.example', PASSWORD)).status).toBe(401);
  });
  it('sessions are in cookies that no script can read, over TLS alone', async () => {
    const answer = await auth().api.signInEmail({
      body: { email: 'argon@larkhaven.example', password: PASSWORD },
      asResponse: true,
    });
    const cookies = answer.headers.getSetCookie();
    expect(cookies.length).toBeGreaterThan(0);
    for (const cookie of cookies) {
      expect(cookie).toMatch(/HttpOnly/i);
      expect(cookie).toMatch(/Secure/i);
      expect(cookie).toMatch(/SameSite=Lax/i);
      expect(cookie).toMatch(/^__Host-maypole\./);
    }
  });
});

describe('invitations', () => {
  it('make one account, once, with their role', async () => {
    const { token } = await invite(db, 'edit', 'Tomas');
    expect(await invited(db, token)).toBe('edit');
    expect(await accept(db, token, given('tomas'))).toMatchObject({ name: 'tomas', role: 'edit' });
    await expect(accept(db, token, given('another'))).rejects.toMatchObject({ status: 410 });
    expect((await listPeople(db)).find((p) => p.name === 'tomas')).toMatchObject({ role: 'edit' });
  });
  it('taken by two at once make one account', async () => {
    const { token } = await invite(db, 'look', 'two');
    const both = await Promise.allSettled([accept(db, token, given('first')), accept(db, token, given('second'))]);
    expect(both.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
  });
  it('are not spent by an address that has an account', async () => {
    const { token } = await invite(db, 'look', 'again');
    await expect(accept(db, token, given('tomas'))).rejects.toMatchObject({ status: 409 });
    expect(await accept(db, token, given('tomas-two'))).toMatchObject({ role: 'look' });
  });
  it('are kept as digests, and can be withdrawn, and grow old', async () => {
    const { id, token } = await invite(db, 'run', 'old');
    const [row] = await db.select().from(invites).where(eq(invites.id, id));
    expect(JSON.stringify(row)).not.toContain(token);
    expect(row.digest).toBe(digestOf(token));
    await db
      .update(invites)
      .set({ expiresAt: new Date(Date.now() - 1000) })
      .where(eq(invites.id, id));
    await expect(invited(db, token)).rejects.toMatchObject({ status: 410 });
    expect((await listInvites(db)).some((i) => i.id === id)).toBe(false);
    const other = await invite(db, 'run', 'withdrawn');
    await withdrawInvite(db, other.id);
    await expect(accept(db, other.token, given('nobody'))).rejects.toMatchObject({ status: 410 });
    await expect(withdrawInvite(db, other.id)).rejects.toMatchObject({ status: 404 });
  });
  it('for an owner are made as long as there is none, each in place of the last', async () => {
    const first = (await ownerLink(db))!;
    const second = (await ownerLink(db))!;
    await expect(invited(db, first)).rejects.toMatchObject({ status: 410 });
    const owner = await accept(db, second, given('owner'));
    expect(owner.role).toBe('own');
    expect(await ownerLink(db)).toBeUndefined();
  });
});

describe('people', () => {
  const of = async (name: string) => (await listPeople(db)).find((p) => p.name === name)!;
  it('some owner stays, whatever is done', async () => {
    const { id } = await of('owner');
    await expect(setRole(db, id, 'edit')).rejects.toMatchObject({ status: 422 });
    await expect(endPerson(db, id)).rejects.toMatchObject({ status: 422 });
    const tomas = await of('tomas');
    await setRole(db, tomas.id, 'own');
    await setRole(db, id, 'edit');
    expect((await of('owner')).role).toBe('edit');
    await setRole(db, id, 'own');
  });
  it('who is removed has no session, no password, and a free address', async () => {
    const tomas = await of('tomas');
    await auth().api.signInEmail({ body: { email: tomas.email, password: PASSWORD }, asResponse: true });
    expect((await db.select().from(sessions).where(eq(sessions.userId, tomas.id))).length).toBeGreaterThan(0);
    await endPerson(db, tomas.id);
    expect(await db.select().from(sessions).where(eq(sessions.userId, tomas.id))).toEqual([]);
    expect(await db.select().from(accounts).where(eq(accounts.userId, tomas.id))).toEqual([]);
    expect(await of('tomas')).toBeUndefined();
    expect(await makePerson({ ...given('tomas'), role: 'look' })).toMatchObject({ name: 'tomas' });
  });
});

describe('keys of machines', () => {
  it('are told once, kept as digests, and known again', async () => {
    const { id, key } = await makeKey(db, 'Render 2', 'run', 30);
    expect(key).toMatch(/^maypole_[A-Za-z0-9_-]{43}$/);
    const [row] = await db.select().from(keys).where(eq(keys.id, id));
    expect(JSON.stringify(row)).not.toContain(key.slice(8));
    expect(await keyHolder(key)).toEqual({ id: `key:${id}`, name: 'Render 2', role: 'run' });
    expect((await db.select().from(keys).where(eq(keys.id, id)))[0].lastUsedAt).not.toBeNull();
    for (const other of [`${key}x`, key.slice(0, -1), 'maypole_', '', 'x'.repeat(10_000)])
      expect(await keyHolder(other)).toBeUndefined();
  });
  it('have 256 bits each, and none twice', () => {
    const all = Array.from({ length: 1000 }, newToken);
    expect(new Set(all).size).toBe(1000);
    for (const token of all) expect(Buffer.from(token, 'base64url').length).toBe(32);
  });
});

describe('tries to come in', () => {
  const stranger = { client: '192.0.2.1', account: 'ines' };
  it('are counted for an account from an address, for the address, and forgotten with time', () => {
    let now = 0;
    const tries = new Attempts(() => now);
    for (let i = 0; i < 10; i++) tries.begin(stranger);
    expect(() => tries.begin(stranger)).toThrow('Wait 15 minutes');
    // Neither the account from elsewhere nor another account from there.
    tries.begin({ ...stranger, client: '192.0.2.9' });
    for (let i = 0; i < 10; i++) tries.begin({ ...stranger, account: `guess ${i}` });
    expect(() => tries.begin({ ...stranger, account: 'tomas' })).toThrow('too many tries');
    now += 14 * 60_000;
    expect(() => tries.begin(stranger)).toThrow('Wait 1 minutes');
    now += 61_000;
    tries.begin(stranger);
  });
  it('count before they are made, so that sixty at once are ten', async () => {
    const tries = new Attempts(() => 0);
    const all = await Promise.all(
      Array.from({ length: 60 }, async () => {
        try {
          tries.begin(stranger);
        } catch {
          return false;
        }
        await new Promise((resolve) => setTimeout(resolve, 5));
        return true;
      }),
    );
    expect(all.filter(Boolean)).toHaveLength(10);
  });
  it('of strangers do not lock out whoever comes by a browser that is known', () => {
    const tries = new Attempts(() => 0);
    for (let i = 0; i < 100; i++) tries.begin({ client: `198.51.${i}.7`, account: 'ines' });
    // By now the account takes no stranger, from wherever.
    expect(() => tries.begin({ client: '203.0.113.5', account: 'ines' })).toThrow('too many');
    for (let i = 0; i < 10; i++) tries.begin({ client: '203.0.113.5', account: 'ines', known: true });
    expect(() => tries.begin({ client: '203.0.113.5', account: 'ines', known: true })).toThrow('too many');
  });
  it('of one IPv6 connection are of one address, however many it has', () => {
    expect(networkOf('2001:db8:1:2:3:4:5:6')).toBe('2001:db8:1:2::/64');
    expect(networkOf('2001:db8::1')).toBe('2001:db8:0:0::/64');
    expect(networkOf('::1')).toBe('0:0:0:0::/64');
    expect(networkOf('192.0.2.1')).toBe('192.0.2.1');
    const tries = new Attempts(() => 0);
    for (let i = 0; i < 10; i++) tries.begin({ client: `2001:db8:1:2::${i}`, account: 'ines' });
    expect(() => tries.begin({ client: '2001:db8:1:2:ffff::', account: 'ines' })).toThrow('too many');
  });
  it('that succeed are not counted', () => {
    const tries = new Attempts(() => 0);
    for (let i = 0; i < 9; i++) tries.begin(stranger);
    tries.begin(stranger);
    tries.succeeded(stranger);
    for (let i = 0; i < 10; i++) tries.begin(stranger);
  });
  it('a browser is known by the account that was come into by it, and by nothing that was made up', () => {
    vi.stubEnv('MAYPOLE_SECRET', 'a secret of this test, long enough');
    const [cookie] = knownBrowserCookie(null, 'ines').split(';');
    expect(isKnownBrowser(`a=b; ${cookie}`, 'ines')).toBe(true);
    expect(isKnownBrowser(cookie, 'tomas')).toBe(false);
    expect(isKnownBrowser('__Host-maypole-known=made-up', 'ines')).toBe(false);
    const [both] = knownBrowserCookie(cookie, 'tomas').split(';');
    expect([isKnownBrowser(both, 'ines'), isKnownBrowser(both, 'tomas')]).toEqual([true, true]);
    vi.unstubAllEnvs();
  });
});

describe('the trail', () => {
  const person = { id: 'p', name: 'Ines', role: 'edit' as const };
  it('has who, what, when and from where; the same within an hour is one row', async () => {
    const deed = { what: 'saved', on: 'piece 1', person, client: '192.0.2.1' };
    await writeEvent(db, deed);
    await writeEvent(db, deed);
    await writeEvent(db, { ...deed, on: 'piece 2' });
    await writeEvent(db, { ...deed, client: '192.0.2.2' });
    const rows = await readAuditLog(db);
    expect(rows.map((r) => [r.on, r.client, r.times])).toEqual([
      ['piece 1', '192.0.2.2', 1],
      ['piece 2', '192.0.2.1', 1],
      ['piece 1', '192.0.2.1', 2],
    ]);
    expect(rows[0]).toMatchObject({ whoName: 'Ines', what: 'saved' });
    expect(await readAuditLog(db, rows[1].id)).toEqual([rows[2]]);
  });
  it('is kept for its time', async () => {
    const [first] = await readAuditLog(db);
    const old = new Date(Date.now() - (TRAIL_DAYS * 86_400_000 + 1000));
    await db.update(auditLog).set({ lastAt: old }).where(eq(auditLog.id, first.id));
    await trimAuditLog(db);
    expect((await readAuditLog(db)).map((r) => r.id)).not.toContain(first.id);
  });
});
