import { Notice } from '@/ui/parts/notice';

export default function NotFound() {
  return (
    <Notice title="There is nothing here">
      The address may be mistyped, or the piece was made in another Maypole.
    </Notice>
  );
}
