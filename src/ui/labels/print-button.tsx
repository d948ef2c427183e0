'use client';

import { Button } from '../parts/button';

export function PrintButton() {
  return <Button onClick={() => window.print()}>Print</Button>;
}
