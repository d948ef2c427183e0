import { DeviceEntrance } from './device-entrance';

/** The device page without a code: for this machine itself, and for devices that joined before. */
export default function JoinHerePage() {
  return <DeviceEntrance code={null} />;
}
