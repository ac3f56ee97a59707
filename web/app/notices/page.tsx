import { readFileSync } from 'node:fs';
import path from 'node:path';
import { NoticesPage } from '@/ui/check/notices-page';

export const metadata = { title: 'Made with' };
// Its scripts have the number that is new with every request.
export const dynamic = 'force-dynamic';

/** What others have made that Maypole is made with. */
export default function Notices() {
  return <NoticesPage text={readFileSync(path.join(process.cwd(), '../NOTICES.md'), 'utf8')} />;
}
