import { LendPage } from '@/ui/deliver/lend-page';

export const metadata = { title: 'Lend a browser' };

export default function Lend() {
  return <LendPage />;
}
