import { redirect } from 'next/navigation';
import { viewer } from '@/app/viewer';
import { AccountPage } from '@/ui/people/account-page';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Your account' };

export default async function Account() {
  const who = await viewer('/account');
  if (!who.open) redirect('/');
  return <AccountPage me={who.person} />;
}
