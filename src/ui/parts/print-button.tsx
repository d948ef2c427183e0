'use client';

import { Button } from './button';

export function PrintButton({ words = 'Print' }: { readonly words?: string }) {
  return <Button onClick={() => window.print()}>{words}</Button>;
}
