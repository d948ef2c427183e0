import type { AirFound, Link, LookKind, NetLink } from '@/core';

/** Somebody on the same network, as its system tells. */
export interface Neighbour {
  readonly address: string;
  /** Hardware address, lower case with colons. */
  readonly mac: string;
  readonly link: string;
}

const MAC = /^([0-9a-f]{2}:){5}[0-9a-f]{2}$/;
const NOBODY = '00:00:00:00:00:00';

/** Whether a hardware address is one of somebody: not of nobody, nor of many (IEEE 802, the lowest bit of the first byte). */
export const isSomebody = (mac: string) =>
  MAC.test(mac) && mac !== NOBODY && (Number.parseInt(mac.slice(0, 2), 16) & 1) === 0;

/** What a program printed; null: it is not there, or it failed. */
export type Printed = (command: string, args: readonly string[], patienceMs?: number) => Promise<string | null>;

/** What a system tells of its machine by programs that it comes with. */
export interface MachineView {
  /** Such as "Debian GNU/Linux 12 (bookworm)". */
  systemName(): Promise<string>;
  /** Where packets to everywhere else go, IPv4; null: nowhere. */
  gateway(): Promise<{ readonly address: string; readonly link: string } | null>;
  /** Where it asks for names. */
  resolvers(): Promise<string[]>;
  links(): Promise<NetLink[]>;
  neighbours(): Promise<Neighbour[]>;
  /** How packets to an address leave; null: that cannot be told. */
  linkTowards(address: string): Promise<Link | null>;
  /** The least round trip of three to an address by the system's ping, ms; null: no answer. */
  roundTripMs(address: string): Promise<number | null>;
  /** What its radio hears; `no-radio`, or `no-scan` with the radio that lists nothing. */
  air(): Promise<
    AirFound | { readonly trouble: 'no-radio' } | { readonly trouble: 'no-scan'; readonly device: string }
  >;
  /** What can be looked at from here, of what needs programs of a system. */
  readonly looks: readonly LookKind[];
  /** Whether delay can be watched here, request by request. */
  readonly keepsLanes: boolean;
}
