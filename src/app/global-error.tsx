'use client';

import './globals.css';
import { PageFailed, type FailedPage } from '@/ui/shell/page-failed';

/** Where not even the frame of the pages could be put together. */
export default function GlobalErrorPage(props: FailedPage) {
  return (
    <html lang="en-GB" data-sheet="day">
      <body>
        <PageFailed {...props} />
      </body>
    </html>
  );
}
