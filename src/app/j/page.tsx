import { DeviceEntrance } from './device-entrance';

/** The device page without a code: for this machine itself, and for devices that joined before. */
interface JoinHereProps {
  readonly searchParams: Promise<{ profile?: string | string[] }>;
}

export default async function JoinHerePage({ searchParams }: JoinHereProps) {
  return <DeviceEntrance code={null} profile={(await searchParams).profile} />;
}
