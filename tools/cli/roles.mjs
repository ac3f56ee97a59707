import { pause } from './processes.mjs';

/** The role by which the application comes to its database: it owns what it keeps there, and may do nothing else. */
export const ROLE = 'maypole_application';

/**
 * Sees to it that the role is there, with its secret, and owns what is kept in a database. To be done as superuser.
 *
 * @param client connected to that database
 * @param secret letters and digits alone
 */
export async function giveToApplication(client, secret) {
  // Two commands at once may change the same row of the catalogue: the later one is refused, and has it next time.
  for (let tried = 1; ; tried++) {
    try {
      return await give(client, secret);
    } catch (error) {
      if (!/tuple concurrently updated|already exists/.test(error.message) || tried === 10) throw error;
      await pause(50 * tried);
    }
  }
}

async function give(client, secret) {
  if (!/^[0-9a-zA-Z]+$/.test(secret)) throw new RangeError('A secret is of letters and digits alone.');
  const { rowCount } = await client.query('select from pg_roles where rolname = $1', [ROLE]);
  if (rowCount === 0) await client.query(`create role ${ROLE}`);
  await client.query(
    `alter role ${ROLE} with login nosuperuser nocreatedb nocreaterole noreplication nobypassrls password '${secret}'`,
  );
  const { rows } = await client.query('select current_database() as name');
  // The tool that brings the database up to date keeps its own list in a schema of its own.
  await client.query(`grant create on database "${rows[0].name}" to ${ROLE}`);
  const kept = await client.query(
    `select format('alter schema %I owner to ${ROLE}', nspname) as words
       from pg_namespace where nspname in ('public', 'drizzle') and pg_get_userbyid(nspowner) <> $1
     union all
     select format('alter table %I.%I owner to ${ROLE}', schemaname, tablename)
       from pg_tables where schemaname in ('public', 'drizzle') and tableowner <> $1`,
    [ROLE],
  );
  for (const { words } of kept.rows) await client.query(words);
}
