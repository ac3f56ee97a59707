import { CheckPage } from '@/ui/check/check-page';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <CheckPage />;
}
