import { GuideIndex } from '@/ui/guide/guide-index';

export const metadata = { title: 'Guide' };
// The CSP nonce of its scripts is new for every request.
export const dynamic = 'force-dynamic';

export default function Guide() {
  return <GuideIndex />;
}
