'use client';

import { PageFailed, type FailedPage } from '@/ui/shell/page-failed';

export default function ErrorPage(props: FailedPage) {
  return <PageFailed {...props} />;
}
