import type { Role } from '@/contract/person';
import type { RoomUsed } from '@/contract/room';
import { ask, json } from '../api';

export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly createdAt: string;
}
export interface InviteRow {
  readonly id: string;
  readonly role: Role;
  readonly note: string;
  readonly expiresAt: string;
}
export interface KeyRow {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly createdAt: string;
  readonly lastUsedAt: string | null;
  readonly endsAt: string;
}
export interface SessionRow {
  readonly id: string;
  readonly since: string;
  readonly seenAt: string;
  readonly client: string | null;
  readonly agent: string | null;
  /** Whether it is this session. */
  readonly here: boolean;
}
/** What an authenticator is set up with: its secret as a Key URI, and recovery codes. */
export interface SecondBegun {
  readonly uri: string;
  readonly codes: readonly string[];
}
export interface TrailRow {
  readonly id: number;
  readonly what: string;
  readonly on: string;
  readonly whoName: string;
  readonly client: string;
  readonly times: number;
  readonly lastAt: string;
}
export interface Everyone {
  readonly people: readonly PersonRow[];
  readonly invites: readonly InviteRow[];
  readonly keys: readonly KeyRow[];
  readonly room: RoomUsed;
}

/** Signs in; true if a second factor is still needed. */
export async function enter(email: string, password: string): Promise<boolean> {
  const answer = await ask('/api/enter', json({ email, password }, 'POST'));
  return ((await answer.json()) as { second?: boolean }).second === true;
}
export async function enterCode(code: string): Promise<void> {
  await ask('/api/enter/code', json({ code }, 'POST'));
}
export async function giveAgain(password: string): Promise<void> {
  await ask('/api/enter/again', json({ password }, 'POST'));
}
export async function ownSessions(): Promise<readonly SessionRow[]> {
  return ((await (await ask('/api/enter/sessions')).json()) as { sessions: readonly SessionRow[] }).sessions;
}
/** Ends another session, or all others. */
export async function leaveElsewhere(id?: string): Promise<void> {
  await ask(`/api/enter/sessions${id ? `/${id}` : ''}`, { method: 'DELETE' });
}
export async function hasSecond(): Promise<boolean> {
  return ((await (await ask('/api/enter/second')).json()) as { on: boolean }).on;
}
export async function beginSecond(password: string): Promise<SecondBegun> {
  return (await ask('/api/enter/second', json({ password }, 'POST'))).json();
}
export async function confirmSecond(code: string): Promise<void> {
  await ask('/api/enter/second', json({ code }, 'PUT'));
}
export async function endSecond(password: string): Promise<void> {
  await ask('/api/enter/second/off', json({ password }, 'POST'));
}
export async function newPaperCodes(password: string): Promise<readonly string[]> {
  const answer = await ask('/api/enter/second/codes', json({ password }, 'POST'));
  return ((await answer.json()) as { codes: readonly string[] }).codes;
}
export async function leave(): Promise<void> {
  await ask('/api/enter', { method: 'DELETE' });
}
export async function changePassword(password: string, next: string): Promise<void> {
  await ask('/api/enter/password', json({ password, next }, 'PUT'));
}
export async function accept(given: { token: string; name: string; email: string; password: string }): Promise<void> {
  await ask('/api/people/accept', json(given, 'POST'));
}
export async function everyone(): Promise<Everyone> {
  return (await ask('/api/people')).json();
}
export async function readTrail(): Promise<readonly TrailRow[]> {
  return ((await (await ask('/api/people/trail')).json()) as { trail: readonly TrailRow[] }).trail;
}
export async function invite(role: Role, note: string): Promise<string> {
  return ((await (await ask('/api/people/invites', json({ role, note }, 'POST'))).json()) as { token: string }).token;
}
export async function makeKey(name: string, role: Role, days?: number): Promise<string> {
  return ((await (await ask('/api/people/keys', json({ name, role, days }, 'POST'))).json()) as { key: string }).key;
}
export async function setRole(id: string, role: Role): Promise<void> {
  await ask(`/api/people/${id}`, json({ role }, 'PUT'));
}
/** Removes a person, an invitation or a key. */
export async function takeAway(what: 'person' | 'invites' | 'keys', id: string): Promise<void> {
  await ask(`/api/people/${what === 'person' ? '' : `${what}/`}${id}`, { method: 'DELETE' });
}
