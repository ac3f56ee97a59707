import { viewer } from '@/app/viewer';
import { RendersPage } from '@/ui/deliver/renders-page';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Renders' };

export default async function Renders() {
  return <RendersPage viewer={await viewer('/renders')} />;
}
