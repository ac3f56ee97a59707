import type { Role } from '@/server/people/person';
import type { RoomUsed } from '@/server/room';
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

export async function enter(email: string, password: string): Promise<void> {
  await ask('/api/enter', json({ email, password }, 'POST'));
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
export async function makeKey(name: string, role: Role): Promise<string> {
  return ((await (await ask('/api/people/keys', json({ name, role }, 'POST'))).json()) as { key: string }).key;
}
export async function setRole(id: string, role: Role): Promise<void> {
  await ask(`/api/people/${id}`, json({ role }, 'PUT'));
}
/** Takes away a person, an invitation or a key. */
export async function takeAway(what: 'person' | 'invites' | 'keys', id: string): Promise<void> {
  await ask(`/api/people/${what === 'person' ? '' : `${what}/`}${id}`, { method: 'DELETE' });
}
