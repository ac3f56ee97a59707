/** Roles; each includes those before it. */
export const ROLES = ['look', 'edit', 'run', 'own'] as const;
export type Role = (typeof ROLES)[number];

/** Title and help of each role. */
export const ROLE_WORDS: Readonly<Record<Role, { readonly title: string; readonly help: string }>> = {
  look: { title: 'Look', help: 'Opens and plays pieces, and takes their files.' },
  edit: { title: 'Edit', help: 'Makes, changes and renders pieces, and puts them into the bin.' },
  run: { title: 'Run', help: 'Joins machines that work on renders, too.' },
  own: { title: 'Owner', help: 'Invites people, makes keys, and reads the trail.' },
};

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

/** The user where Maypole is not open to others. */
export const LOCAL: Person = { id: 'local', name: 'This machine', role: 'own' };

/** What a page knows about its user. */
export interface Viewer {
  readonly person: Person;
  /** Whether there are accounts, so that one can sign out. */
  readonly open: boolean;
}

/** Whether a role includes another. */
export function suffices(role: Role, asked: Role): boolean {
  return ROLES.indexOf(role) >= ROLES.indexOf(asked);
}
