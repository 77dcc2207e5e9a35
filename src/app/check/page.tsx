import { checkRecord } from '@/server/actions/check';
import { CheckPage } from '@/ui/check/check-page';
import { Header } from '@/ui/shell/header';

export default function Page() {
  return (
    <>
      <Header title="Check a record" homeHref="/check" />
      <CheckPage checkRecord={checkRecord} />
    </>
  );
}
