import { NO_SAMPLES, seededRandom, type ProfileName, type Reach } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import type { StandingOrder } from '@/wire';
import {
  cookieFor,
  deviceForm,
  finished,
  GOOD_LINE,
  handedIn,
  orderFor,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { saveDevice } from '../office';
import { handInRun } from '../runs/hand-in-run';
import { standBy, type StandingSession } from './stand-by';
import { askForRun } from './turn-desk';

const ORIGIN = 'http://192.0.2.20:4870';

/** A device that stands by, and what it was told. */
export interface StandingDevice {
  readonly id: string;
  readonly cookie: string;
  readonly told: readonly StandingOrder[];
  readonly session: StandingSession;
}

/** Lets a device stand by: the one of an id, or a new one of a name. */
export async function standingDevice(
  console: TestConsole,
  siteId: string,
  { name, id }: { readonly name?: string; readonly id?: string },
): Promise<StandingDevice> {
  const saved = id === undefined ? await saveDevice(console.context, siteId, null, deviceForm({ name: name! })) : null;
  if (saved?.ok === false) throw new Error(saved.fault.code);
  const deviceId = id ?? saved!.value.id;
  const told: StandingOrder[] = [];
  const cookie = await cookieFor(console, deviceId);
  const link = { send: (order: StandingOrder) => void told.push(order), close: () => undefined };
  const session = await standBy(console.context, cookie, link);
  if (session === null) throw new Error('it is no device');
  return { id: deviceId, cookie, told, session };
}

/** The turn that a device was asked to take last. */
export const lastTurn = ({ told }: Pick<StandingDevice, 'told'>): string =>
  told.flatMap((order) => (order.kind === 'asked' ? [order.turnId] : [])).at(-1)!;

/** The device takes up the turn that it was asked for last, over a line of a rate; without samples nothing comes of it. */
export async function takeTurn(
  console: TestConsole,
  device: StandingDevice,
  {
    mbps = 480,
    samples = true,
    reach = 'internet',
    profile = 'standard',
  }: {
    readonly mbps?: number;
    readonly samples?: boolean;
    readonly reach?: Reach;
    readonly profile?: ProfileName;
  } = {},
): Promise<string> {
  const order = orderFor(null, {
    ...{ deviceId: device.id, deviceName: null, turnId: lastTurn(device), reach, profile },
  });
  const answer = await askForRun(console.context, { ...STRANGER, cookie: device.cookie }, order, ORIGIN);
  if (!answer.ok || answer.value.status !== 'granted') throw new Error('not granted');
  const line = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: mbps * 1e6 } };
  const handIn = samples
    ? handedIn({ ...simulateSamples(line, seededRandom(5)), profile }, answer.value, { sameMachine: false })
    : finished(NO_SAMPLES);
  await handInRun(console.context, answer.value.runId, answer.value.runKey, handIn);
  return answer.value.runId;
}
