import type { AirNetwork } from '../air/air-network';
import type { PortsFound } from '../ports/port';
import type { LineAsked, LineFound } from './line-found';
import type { OutsideAsked, OutsideFound } from './outside-found';
import type { PathLoaded } from './path-load';

/** What a machine can be asked to look at, and what it answers. Times in ms, rates in bits per second, sizes in bytes. */

/** A file written to a folder and read back. */
export interface ShareAsked {
  readonly what: 'share';
  readonly folder: string;
  readonly megabytes: number;
  readonly streams: number;
}
/** Echo requests to a host (RFC 792, RFC 4443). */
export interface EchoAsked {
  readonly what: 'echo';
  readonly target: string;
  readonly count: number;
}
/** Resolvers side by side. */
export interface NamesAsked {
  readonly what: 'names';
  /** Beside the machine's own and its gateway: addresses, `tls:ADDRESS` or `https://…`. */
  readonly resolvers: readonly string[];
  readonly names: readonly string[];
}
/** The routers on the way to a host. */
export interface PathAsked {
  readonly what: 'path';
  readonly target: string;
  /** Ask the hops again while the line is full; absent: do not. */
  readonly loaded?: true | undefined;
}
/** Which programs of the machine move how much. */
export interface ProgramsAsked {
  readonly what: 'programs';
  readonly seconds: number;
}
/** Networks that a radio hears. */
export interface AirAsked {
  readonly what: 'air';
}
/** The ports of a router or switch, by SNMP. */
export interface PortsAsked {
  readonly what: 'ports';
  readonly target: string;
  /** Between both readings. */
  readonly seconds: number;
}

/** How a device lets itself be asked by SNMP; never kept in the open, and never shown again. */
export interface SnmpLogin {
  readonly port: number;
  /** v2c (RFC 1901); null: v3. */
  readonly community: string | null;
  /** v3 (RFC 3414), with SHA-1 and AES-128 where keys are given; null: v2c. */
  readonly user: { readonly name: string; readonly authKey: string | null; readonly privKey: string | null } | null;
}
export type LookAsked =
  | ShareAsked
  | EchoAsked
  | NamesAsked
  | PathAsked
  | ProgramsAsked
  | AirAsked
  | PortsAsked
  | LineAsked
  | OutsideAsked;
export type LookKind = LookAsked['what'];
export const LOOK_KINDS = [
  'share',
  'echo',
  'names',
  'path',
  'programs',
  'air',
  'ports',
  'line',
  'outside',
] as const satisfies readonly LookKind[];

/** Bytes that had gone through so many ms after the begin; the last one counts up to the moment at which all of it was safe. */
export interface ShareSeries {
  readonly atMs: readonly number[];
  readonly bytes: readonly number[];
}

export interface ShareFound {
  readonly what: 'share';
  readonly folder: string;
  /** Such as "nfs4", "cifs", "ext4", as the kernel names it. */
  readonly fileSystem: string;
  /** What is mounted there, such as "store:/volume1". */
  readonly source: string;
  /** Whether other machines are behind it: what the machine itself holds says nothing about a network. */
  readonly place: 'network' | 'own-disk' | 'memory';
  readonly streams: number;
  readonly written: ShareSeries;
  /** Null: it could not be read back past the machine's own cache, so it would have told of the cache. */
  readonly read: ShareSeries | null;
}

export interface EchoFound {
  readonly what: 'echo';
  readonly target: string;
  /** What the name came to; null: nothing answered. */
  readonly address: string | null;
  /** Round trip of each request in the order of sending; null: nothing came back. */
  readonly rttsMs: readonly (number | null)[];
  /** Replies that came twice. */
  readonly duplicates: number;
  /** What a router said instead, such as "Destination Host Unreachable"; null: none did. */
  readonly refusal: string | null;
}

/** How one question to a resolver went. */
export interface NameAnswer {
  readonly resolver: string;
  readonly name: string;
  /** `fresh`: a name that nobody can have asked for before; `again`: one that was asked for a moment ago. */
  readonly kind: 'fresh' | 'again';
  readonly round: number;
  /** Null: it did not answer. */
  readonly ms: number | null;
  /** Response code (RFC 1035, 4.1.1) as a word; null: it did not answer. */
  readonly code: string | null;
  readonly addresses: readonly string[];
  /** Whether it says that it has checked the signatures (the AD bit, RFC 4035). */
  readonly authentic: boolean;
  /** Why there is no answer. */
  readonly trouble: string | null;
}
export interface NamesFound {
  readonly what: 'names';
  /** Address → what it is here: "this machine’s", "gateway", "typed". */
  readonly resolvers: readonly { readonly resolver: string; readonly role: 'own' | 'gateway' | 'typed' }[];
  readonly answers: readonly NameAnswer[];
}

export interface PathHop {
  /** How many routers away, from 1. */
  readonly place: number;
  /** Who said that the packet had gone far enough; empty: nobody. More than one: ways that part. */
  readonly addresses: readonly string[];
  readonly name: string | null;
  /** Round trips of echo requests of their own to the first address; null: it does not answer them. */
  readonly rttsMs: readonly (number | null)[];
}
export interface PathFound {
  readonly what: 'path';
  readonly target: string;
  readonly address: string | null;
  readonly hops: readonly PathHop[];
  /** Whether the target itself answered. */
  readonly reached: boolean;
  /** The largest packet that goes there whole, bytes with its headers; null: not told. */
  readonly mtuBytes: number | null;
  /** The same while the line was full; absent: that was not asked for. */
  readonly loaded?: PathLoaded | undefined;
}

export interface ProgramsFound {
  readonly what: 'programs';
  readonly seconds: number;
  readonly programs: readonly {
    /** Null: of another user. */
    readonly program: string | null;
    readonly inside: boolean;
    readonly upBps: number;
    readonly downBps: number;
  }[];
}
export interface AirFound {
  readonly what: 'air';
  /** The radio that listened. */
  readonly device: string;
  readonly by: 'iw' | 'nmcli' | 'netsh' | 'system_profiler';
  readonly networks: readonly AirNetwork[];
}
export type LookFound =
  | ShareFound
  | EchoFound
  | NamesFound
  | PathFound
  | ProgramsFound
  | AirFound
  | PortsFound
  | LineFound
  | OutsideFound;
