import type { Metadata } from 'next';
import { DeviceEntrance } from '@/app/j/device-entrance';

export const metadata: Metadata = { title: 'It is slow' };

/** A label was scanned: the device page with its place filled in, and one more thing to say. */
export default async function LabelPage({ params }: { readonly params: Promise<{ id: string }> }) {
  return <DeviceEntrance code={decodeURIComponent((await params).id)} profile="quick" />;
}
