import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { database } from '@/server/data/db';
import { peopleAlone } from '@/server/fixtures/alone';
import type { Route } from '@/server/http/route';
import { auth } from '@/server/people/auth';
import { accept, invite } from '@/server/people/invites';
import { makeKey, withdrawKey } from '@/server/people/keys';
import { endPerson, setRole } from '@/server/people/people';
import { ROLES, suffices, type Role } from '@/contract/person';
import { people } from '@/server/people/tables';

// Run by ./maypole test unit, which names a throw-away database in DATABASE_URL.
const METHODS = ['GET', 'POST', 'PUT', 'DELETE'] as const;
const files = readdirSync(import.meta.dirname, { recursive: true, encoding: 'utf8' }).filter((f) =>
  f.endsWith('route.ts'),
);
const routes: { where: string; method: string; route: Route }[] = [];
const PASSWORD = 'a few words are good';
const cookies = new Map<Role, string>();

/** Signs in, as the page does; the cookie that it gets. */
async function signIn(email: string): Promise<string> {
  const answer = await auth().api.signInEmail({ body: { email, password: PASSWORD }, asResponse: true });
  return answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}
async function member(role: Role, email = `${role}@larkhaven.example`): Promise<{ id: string; cookie: string }> {
  const db = database();
  const { token } = await invite(db, role, 'for a test');
  const person = await accept(db, token, { name: `The ${role}`, email, password: PASSWORD });
  return { id: person.id, cookie: await signIn(email) };
}

const ids = { id: '00000000-0000-4000-8000-000000000000', number: '1', fingerprint: 'a'.repeat(64) };
/** What a route answers to somebody who asks without a body, of something that is not there. */
const ask = (route: Route, method: string, headers: Record<string, string>) =>
  route(
    new Request('https://maypole.studio.example/api/x?kind=finish', {
      method,
      headers: { 'sec-fetch-site': 'same-origin', ...headers },
    }),
    {
      params: Promise.resolve(ids),
    },
  );

let giveBack: () => Promise<void>;
beforeAll(async () => {
  giveBack = await peopleAlone();
  process.env.MAYPOLE_OPEN = '1';
  process.env.MAYPOLE_SECRET = 'x'.repeat(64);
  await database().delete(people);
  for (const file of files) {
    const module = (await import(path.join(import.meta.dirname, file))) as Record<string, Route>;
    for (const method of METHODS)
      if (module[method]) routes.push({ where: path.dirname(file), method, route: module[method] });
  }
  for (const role of ROLES) cookies.set(role, (await member(role)).cookie);
}, 120_000);
afterAll(async () => {
  process.env.MAYPOLE_OPEN = '';
  await giveBack();
});

describe('who may use what', () => {
  it('every route says so, and there is no other way in', () => {
    expect(routes.length).toBeGreaterThan(25);
    for (const { where, method, route } of routes) expect(route.rules?.who, `${method} ${where}`).toBeDefined();
    // Nothing answers but by `route`.
    for (const file of files) {
      const text = readFileSync(path.join(import.meta.dirname, file), 'utf8');
      for (const [, name] of text.matchAll(/export const (GET|HEAD|POST|PUT|PATCH|DELETE|OPTIONS)\b/g))
        expect(text, file).toMatch(new RegExp(`export const ${name} = route[(<]`));
      expect(text, file).not.toMatch(/export (async )?function/);
    }
  });
  it('what anyone may is little', () => {
    const open = routes.filter((r) => r.route.rules.who === 'anyone').map((r) => `${r.method} ${r.where}`);
    expect(open.sort()).toEqual(['DELETE enter', 'GET health', 'POST enter', 'POST enter/code', 'POST people/accept']);
  });
  it('what changes anything is for those who edit, at least, but for one’s own account', () => {
    const weak = routes.filter(
      (r) => r.method !== 'GET' && r.route.rules.who === 'look' && !r.where.startsWith('enter/'),
    );
    // That a page is open is said by whoever looks. A movie of a sheet is made of what is sent, and nothing of it is kept.
    expect(weak.map((r) => r.where).sort()).toEqual(['pieces/[id]/here', 'sheets/movie']);
  });
  it('nobody known gets 401 on every route but those', async () => {
    for (const { where, method, route } of routes) {
      if (route.rules.who === 'anyone') continue;
      for (const headers of [
        {},
        { cookie: 'maypole.session_token=made-up' },
        { authorization: 'Bearer maypole_made-up' },
      ]) {
        const answer = await ask(route, method, headers as Record<string, string>);
        expect(answer.status, `${method} ${where}`).toBe(401);
      }
    }
  });
  it.each(ROLES)('“%s” is let in just where it suffices', async (role) => {
    let [inside, outside] = [0, 0];
    for (const { where, method, route } of routes) {
      const { who } = route.rules;
      if (who === 'anyone') continue;
      const { status } = await ask(route, method, { cookie: cookies.get(role)! });
      const may = suffices(role, who);
      expect(status === 403, `${method} ${where} as ${role}: ${status}`).toBe(!may);
      if (may) expect([200, 204, 400, 404, 415, 422], `${method} ${where} as ${role}`).toContain(status);
      if (may) inside++;
      else outside++;
    }
    expect(inside).toBeGreaterThan(5);
    expect(outside > 0).toBe(role !== 'own');
  });
  it('a key opens what its role may, until it is withdrawn', async () => {
    const { id, key } = await makeKey(database(), 'Render 1', 'run', 365);
    const list = routes.find((r) => r.where === 'pieces' && r.method === 'GET')!.route;
    const owners = routes.find((r) => r.where === 'people' && r.method === 'GET')!.route;
    const headers = { authorization: `Bearer ${key}` };
    expect((await ask(list, 'GET', headers)).status).toBe(200);
    expect((await ask(owners, 'GET', headers)).status).toBe(403);
    await withdrawKey(database(), id);
    expect((await ask(list, 'GET', headers)).status).toBe(401);
  });
  it('a role that is changed, and a person who is removed, count from the next request on', async () => {
    const { id, cookie } = await member('edit', 'changing@larkhaven.example');
    const list = routes.find((r) => r.where === 'pieces' && r.method === 'GET')!.route;
    const bin = routes.find((r) => r.where === 'pieces/[id]' && r.method === 'DELETE')!.route;
    expect((await ask(bin, 'DELETE', { cookie })).status).toBe(404);
    await setRole(database(), id, 'look');
    expect((await ask(bin, 'DELETE', { cookie })).status).toBe(403);
    await endPerson(database(), id);
    expect((await ask(list, 'GET', { cookie })).status).toBe(401);
    await expect(
      auth().api.signInEmail({ body: { email: 'changing@larkhaven.example', password: PASSWORD } }),
    ).rejects.toThrow();
  });
});
