/** What a person may, each with all that those before it may. */
export const ROLES = ['look', 'edit', 'run', 'own'] as const;
export type Role = (typeof ROLES)[number];

/** What each role is called, and what it may, for whoever gives it. */
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

/** Whoever sits at this machine, where Maypole is not open to others. */
export const LOCAL: Person = { id: 'local', name: 'This machine', role: 'own' };

/** What a page knows of who looks at it. */
export interface Viewer {
  readonly person: Person;
  /** Whether there are others, so that one can sign out. */
  readonly open: boolean;
}

/** Whether a role is enough where another is asked for. */
export function suffices(role: Role, asked: Role): boolean {
  return ROLES.indexOf(role) >= ROLES.indexOf(asked);
}
