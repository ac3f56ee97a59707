import { GuideIndex } from '@/ui/guide/guide-index';

export const metadata = { title: 'Guide' };
// Its scripts have the number that is new with every request.
export const dynamic = 'force-dynamic';

export default function Guide() {
  return <GuideIndex />;
}
