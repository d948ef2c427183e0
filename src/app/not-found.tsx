import { Notice } from '@/ui/parts/notice';
import { Link } from '@/ui/parts/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[44rem] px-6 pt-16">
      <Notice title="Nothing is kept at this address">
        <p>
          The run may have been removed, or the address was cut short. Look in the <Link href="/ledger">ledger</Link>,
          or go to the <Link href="/">board</Link>.
        </p>
      </Notice>
    </main>
  );
}
