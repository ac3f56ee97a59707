/** Prints the secret of a link for the first owner, if there is none yet. Run by the start command. */
import { connect } from '../data/db';
import { ownerLink } from './invites';

const db = connect(process.env.DATABASE_URL!);
try {
  const token = await ownerLink(db);
  if (token) console.log(token);
} finally {
  await db.$client.end();
}
