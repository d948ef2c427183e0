'use client';

import { Button } from '@/ui/parts/button';
import { Notice } from '@/ui/parts/notice';

export default function ConsoleError({
  error,
  reset,
}: {
  readonly error: Error & { digest?: string };
  readonly reset: () => void;
}) {
  return (
    <div className="pt-10">
      <Notice title="This page could not be drawn" urgent>
        <p>
          The console met an error it did not expect{error.digest === undefined ? '' : ` (${error.digest})`}. Nothing
          was lost; the lines in the terminal that runs it say more. Try once more, and if it stays, start the console
          again.
        </p>
        <Button className="mt-3" onClick={reset}>
          Try once more
        </Button>
      </Notice>
    </div>
  );
}
