import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { database } from '@/server/data/db';
import { peopleAlone } from '@/server/fixtures/alone';
import { totp } from '@/server/fixtures/totp';
import type { Route } from '@/server/http/route';
import { UNATTENDED } from '@/contract/headers';
import { accept, invite } from '@/server/people/invites';
import { keyHolder, makeKey } from '@/server/people/keys';
import type { Role } from '@/contract/person';
import { OWNER_IDLE, SURE } from '@/server/people/sessions';
import { keys, people, sessions } from '@/server/people/tables';
import { UsedCodes } from '@/server/people/used-codes';
import * as again from './enter/again/route';
import * as code from './enter/code/route';
import * as enter from './enter/route';
import * as own from './enter/sessions/route';
import * as ownOne from './enter/sessions/[id]/route';
import * as paper from './enter/second/codes/route';
import * as off from './enter/second/off/route';
import * as second from './enter/second/route';
import * as allPeople from './people/route';
import * as invites from './people/invites/route';
import * as keyRoutes from './people/keys/route';

// Run by ./maypole test unit, which names a throw-away database in DATABASE_URL.
const PASSWORD = 'a few words are good';
let giveBack: () => Promise<void>;
beforeAll(async () => {
  giveBack = await peopleAlone();
  process.env.MAYPOLE_OPEN = '1';
  process.env.MAYPOLE_SECRET = 'x'.repeat(64);
  await database().delete(people);
}, 120_000);
afterAll(async () => {
  process.env.MAYPOLE_OPEN = '';
  await giveBack();
});

/** A browser: it keeps its cookies. */
class Browser {
  readonly cookies = new Map<string, string>();
  constructor(private readonly agent = 'Test') {}
  async ask(route: Route, method: string, body?: unknown, params: unknown = {}, more: Record<string, string> = {}) {
    const answer = await route(
      new Request('https://maypole.studio.example/api/x', {
        method,
        headers: {
          cookie: [...this.cookies].map(([k, v]) => `${k}=${v}`).join('; '),
          'user-agent': this.agent,
          ...more,
        },
        body: body === undefined ? undefined : JSON.stringify(body),
      }),
      { params: Promise.resolve(params) },
    );
    for (const set of answer.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(set)!;
      if (value === '' || /Max-Age=0/i.test(set)) this.cookies.delete(name);
      else this.cookies.set(name, value);
    }
    const text = await answer.text();
    return { status: answer.status, json: (text ? JSON.parse(text) : {}) as Record<string, unknown> };
  }
  enter(email: string, password = PASSWORD) {
    return this.ask(enter.POST, 'POST', { email, password });
  }
}

async function member(name: string, role: Role): Promise<{ id: string; email: string; browser: Browser }> {
  const { token } = await invite(database(), role, 'for a test');
  const email = `${name}@larkhaven.example`;
  const { id } = await accept(database(), token, { name, email, password: PASSWORD });
  const browser = new Browser();
  expect((await browser.enter(email)).status).toBe(200);
  return { id, email, browser };
}

describe('where one is signed in', () => {
  it('is listed, and ended from elsewhere, each by its owner alone', async () => {
    const { email, browser } = await member('ines', 'edit');
    const [other, third] = [new Browser('Elsewhere'), new Browser('Third')];
    for (const b of [other, third]) await b.enter(email);
    const list = async () =>
      (await browser.ask(own.GET, 'GET')).json.sessions as { id: string; here: boolean; agent: string }[];
    const before = await list();
    expect(before.map((s) => [s.agent, s.here]).sort()).toEqual([
      ['Elsewhere', false],
      ['Test', true],
      ['Third', false],
    ]);
    const id = before.find((s) => s.agent === 'Elsewhere')!.id;
    const stranger = await member('tomas', 'edit');
    expect((await stranger.browser.ask(ownOne.DELETE, 'DELETE', undefined, { id })).status).toBe(404);
    expect((await other.ask(own.GET, 'GET')).status).toBe(200);
    expect((await browser.ask(ownOne.DELETE, 'DELETE', undefined, { id })).status).toBe(204);
    expect((await other.ask(own.GET, 'GET')).status).toBe(401);
    expect((await browser.ask(own.DELETE, 'DELETE')).status).toBe(204);
    expect((await third.ask(own.GET, 'GET')).status).toBe(401);
    expect((await list()).map((s) => s.here)).toEqual([true]);
  });

  it('a key of a machine has no account', async () => {
    const { key } = await makeKey(database(), 'Render 3', 'run', 1);
    const answer = await new Browser().ask(own.GET, 'GET', undefined, {}, { authorization: `Bearer ${key}` });
    expect([answer.status, answer.json.error]).toEqual([403, expect.stringContaining('machines with a key')]);
  });
});

describe('a session that is not used', () => {
  const lastUsed = (id: string, ago: number) =>
    database()
      .update(sessions)
      .set({ seenAt: new Date(Date.now() - ago) })
      .where(eq(sessions.userId, id));
  it('is over for an owner after twelve hours, and for nobody else', async () => {
    const owner = await member('owner', 'own');
    const editor = await member('editor', 'edit');
    await lastUsed(owner.id, OWNER_IDLE - 60_000);
    await lastUsed(editor.id, OWNER_IDLE + 60_000);
    expect((await owner.browser.ask(allPeople.GET, 'GET')).status).toBe(200);
    expect((await editor.browser.ask(own.GET, 'GET')).status).toBe(200);
    // Having been used just now it lasts twelve hours more.
    await lastUsed(owner.id, OWNER_IDLE + 60_000);
    expect((await owner.browser.ask(allPeople.GET, 'GET')).status).toBe(401);
    expect(await database().select().from(sessions).where(eq(sessions.userId, owner.id))).toEqual([]);
  });
  it('is not kept alive by a page that asks by itself', async () => {
    const { id, browser } = await member('asleep', 'own');
    const seen = async () =>
      (await database().select().from(sessions).where(eq(sessions.userId, id)))[0].seenAt.getTime();
    await lastUsed(id, 3_600_000);
    const before = await seen();
    expect((await browser.ask(own.GET, 'GET', undefined, {}, { [UNATTENDED]: '1' })).status).toBe(200);
    expect(await seen()).toBe(before);
    await browser.ask(own.GET, 'GET');
    expect(await seen()).toBeGreaterThan(before);
  });
});

describe('what gives others power', () => {
  it('asks for the password once more after five minutes, and takes no other', async () => {
    const { id, browser } = await member('powerful', 'own');
    const invites$ = () => browser.ask(invites.POST, 'POST', { role: 'look', note: 'Somebody' });
    const key$ = () => browser.ask(keyRoutes.POST, 'POST', { name: 'Render 4', role: 'run', days: 30 });
    expect((await invites$()).status).toBe(201);
    await database()
      .update(sessions)
      .set({ createdAt: new Date(Date.now() - SURE - 1000) })
      .where(eq(sessions.userId, id));
    for (const work of [invites$, key$]) expect((await work()).status).toBe(428);
    // Looking is no power.
    expect((await browser.ask(allPeople.GET, 'GET')).status).toBe(200);
    const wrong = await browser.ask(again.POST, 'POST', { password: 'not this one' });
    expect([wrong.status, wrong.json.error]).toEqual([422, expect.stringContaining('not your present password')]);
    expect((await invites$()).status).toBe(428);
    expect((await browser.ask(again.POST, 'POST', { password: PASSWORD })).status).toBe(204);
    expect((await invites$()).status).toBe(201);
    expect((await key$()).status).toBe(201);
  });
});

describe('keys', () => {
  it('open until their end, which is two years away at most', async () => {
    const { browser } = await member('keeper', 'own');
    const make = (days: unknown) => browser.ask(keyRoutes.POST, 'POST', { name: 'Render 5', role: 'run', days });
    for (const days of [0, 731, 1.5, '30']) expect((await make(days)).status).toBe(400);
    const { id, key } = (await make(30)).json as { id: string; key: string };
    const [row] = await database().select().from(keys).where(eq(keys.id, id));
    expect((row.endsAt.getTime() - Date.now()) / 86_400_000).toBeCloseTo(30, 2);
    expect(await keyHolder(key)).toMatchObject({ name: 'Render 5' });
    await database()
      .update(keys)
      .set({ endsAt: new Date(Date.now() - 1000) })
      .where(eq(keys.id, id));
    expect(await keyHolder(key)).toBeUndefined();
  });
});

describe('codes at signing in', () => {
  it('the code of a test is that of RFC 6238', () => {
    // RFC 6238, appendix B: the ASCII secret 12345678901234567890; the last six of its eight digits.
    const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
    expect(totp(secret, 59_000)).toBe('287082');
    expect(totp(secret, 1_111_111_109_000)).toBe('081804');
    expect(totp(secret, 20_000_000_000_000)).toBe('353130');
  });

  it('are asked for once a device has shown one; a code, and each on paper, is good once; it can be turned off', async () => {
    const { email, browser } = await member('careful', 'own');
    expect((await browser.ask(second.POST, 'POST', { password: 'not this one' })).status).toBe(422);
    const begun = (await browser.ask(second.POST, 'POST', { password: PASSWORD })).json as {
      uri: string;
      codes: string[];
    };
    const uri = new URL(begun.uri);
    expect([uri.protocol, uri.hostname, uri.searchParams.get('issuer')]).toEqual(['otpauth:', 'totp', 'Maypole']);
    const secret = uri.searchParams.get('secret')!;
    expect(new Set(begun.codes).size).toBe(10);
    // Not in use before it has been shown to work.
    expect((await new Browser().enter(email)).json).toEqual({ ok: true });
    expect((await browser.ask(second.PUT, 'PUT', { code: '000000' })).status).toBe(422);
    expect((await browser.ask(second.PUT, 'PUT', { code: totp(secret) })).status).toBe(204);
    expect((await browser.ask(second.GET, 'GET')).json).toEqual({ on: true });

    const other = new Browser();
    expect((await other.enter(email)).json).toEqual({ second: true });
    // Between both one is not in.
    expect((await other.ask(own.GET, 'GET')).status).toBe(401);
    expect((await other.ask(code.POST, 'POST', { code: '12' })).status).toBe(401);
    const now = totp(secret);
    expect((await other.ask(code.POST, 'POST', { code: ` ${now.slice(0, 3)} ${now.slice(3)}` })).status).toBe(200);
    expect((await other.ask(own.GET, 'GET')).status).toBe(200);

    const third = new Browser();
    await third.enter(email);
    const twice = await third.ask(code.POST, 'POST', { code: now });
    expect([twice.status, twice.json.error]).toEqual([410, expect.stringContaining('used already')]);
    expect((await third.ask(own.GET, 'GET')).status).toBe(401);
    await third.enter(email);
    expect((await third.ask(code.POST, 'POST', { code: begun.codes[3] })).status).toBe(200);
    const fourth = new Browser();
    await fourth.enter(email);
    expect((await fourth.ask(code.POST, 'POST', { code: begun.codes[3] })).status).toBe(401);
    // New ones void those before.
    const fresh = (await browser.ask(paper.POST, 'POST', { password: PASSWORD })).json.codes as string[];
    expect((await fourth.ask(code.POST, 'POST', { code: begun.codes[4] })).status).toBe(401);
    expect((await fourth.ask(code.POST, 'POST', { code: fresh[4] })).status).toBe(200);

    expect((await browser.ask(off.POST, 'POST', { password: PASSWORD })).status).toBe(204);
    expect((await new Browser().enter(email)).json).toEqual({ ok: true });
  }, 60_000);

  it('are guessed five times for a sign-in, and then it begins anew', async () => {
    const { email, browser } = await member('guessed', 'own');
    const { uri } = (await browser.ask(second.POST, 'POST', { password: PASSWORD })).json as { uri: string };
    await browser.ask(second.PUT, 'PUT', { code: totp(new URL(uri).searchParams.get('secret')!) });
    const guesser = new Browser();
    await guesser.enter(email);
    const statuses: number[] = [];
    for (let i = 0; i < 6; i++) statuses.push((await guesser.ask(code.POST, 'POST', { code: `00000${i}` })).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 410]);
  });

  it('are remembered as used for as long as they could be right', () => {
    let now = 0;
    const codes = new UsedCodes(() => now);
    expect([codes.claim('ines', '123456'), codes.claim('ines', '123456')]).toEqual([true, false]);
    expect(codes.claim('tomas', '123456')).toBe(true);
    now = 90_001;
    expect(codes.claim('ines', '123456')).toBe(true);
  });
});
