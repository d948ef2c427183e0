import { Notice } from '@/ui/parts/notice';

/** Plain links: every page carries this one with it, and the framework's own would be fetched with each. */
export default function NotFound() {
  return (
    <main className="mx-auto max-w-[44rem] px-6 pt-16">
      <Notice title="Nothing is kept at this address">
        <p>
          The run may have been removed, or the address was cut short. Look in the <a href="/ledger">ledger</a>, or go
          to the <a href="/">board</a>.
        </p>
      </Notice>
    </main>
  );
}
