/** Schemas that are backed up: the data, and the list of migrations. */
const SCHEMAS = ['public', 'drizzle'];

/**
 * What a database holds: for each table how many rows, and a fingerprint of all of them, whatever their order (the sum
 * of the first 64 bits of the MD5 of each row as text).
 *
 * @param client connected, and within a transaction where it is to be of one moment
 * @returns { 'public.pieces': { rows, sum }, … }
 */
export async function factsOf(client) {
  // The text of rows depends on these settings.
  await client.query(
    `set time zone 'UTC'; set bytea_output = 'hex'; set datestyle = 'ISO'; set extra_float_digits = 1`,
  );
  const { rows: tables } = await client.query(
    `select schemaname as schema, tablename as name, format('%I.%I', schemaname, tablename) as place
       from pg_tables where schemaname = any($1) order by 1, 2`,
    [SCHEMAS],
  );
  const facts = {};
  for (const { schema, name, place } of tables) {
    const { rows } = await client.query(
      `select count(*)::text as rows,
              coalesce(sum(('x' || left(md5(t::text), 16))::bit(64)::bigint::numeric), 0)::text as sum
         from ${place} t`,
    );
    facts[`${schema}.${name}`] = rows[0];
  }
  return facts;
}

/** The first table in which two databases differ, in words; undefined if they are equal. */
export function differenceOf(wanted, found) {
  for (const name of new Set([...Object.keys(wanted), ...Object.keys(found)])) {
    const [a, b] = [wanted[name], found[name]];
    if (!a || !b) return `the table ${name} is ${a ? 'missing' : 'one too many'}`;
    if (a.rows !== b.rows) return `the table ${name} has ${b.rows} rows instead of ${a.rows}`;
    if (a.sum !== b.sum) return `the rows of the table ${name} are not as they were`;
  }
  return undefined;
}
