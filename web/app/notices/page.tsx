import { readFileSync } from 'node:fs';
import path from 'node:path';
import { NoticesPage } from '@/ui/check/notices-page';

export const metadata = { title: 'Made with' };
// The CSP nonce of its scripts is new for every request.
export const dynamic = 'force-dynamic';

/** Licences of the libraries, fonts and tables that Maypole uses. */
export default function Notices() {
  return <NoticesPage text={readFileSync(path.join(process.cwd(), '../NOTICES.md'), 'utf8')} />;
}
