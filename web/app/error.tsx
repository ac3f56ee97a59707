'use client';

import { Notice } from '@/ui/parts/notice';

/** Replaces a page that failed; details are only in the server’s log. */
export default function ErrorPage() {
  return (
    <Notice title="This page could not be shown">
      Maypole’s log says why. Nothing you made was changed; reload to try again.
    </Notice>
  );
}
