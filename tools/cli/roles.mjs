import { pause } from './processes.mjs';

/** The application's database role: it owns its data, and may do nothing else. */
export const ROLE = 'maypole_application';

/**
 * Ensures that the role exists, with its secret, and owns the data of a database. Requires a superuser.
 *
 * @param client connected to that database
 * @param secret letters and digits only
 */
export async function giveToApplication(client, secret) {
  // Two commands may update the same catalogue row at once: the later one fails, and succeeds when repeated.
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
  // The migrator keeps its own list in a schema of its own.
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
