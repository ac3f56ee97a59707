'use client';

import { Notice } from '@/ui/parts/notice';

/** Shown instead of a page that failed; the details are in the server’s log only. */
export default function ErrorPage() {
  return (
    <Notice title="This page could not be shown">
      Maypole’s log says why. Nothing you made was changed; reload to try again.
    </Notice>
  );
}
