import { readFileSync } from 'node:fs';
import path from 'node:path';
import { NoticesPage } from '@/ui/check/notices-page';

export const metadata = { title: 'Made with' };
export const dynamic = 'force-static';

/** What others have made that Maypole is made with. */
export default function Notices() {
  return <NoticesPage text={readFileSync(path.join(process.cwd(), '../NOTICES.md'), 'utf8')} />;
}
