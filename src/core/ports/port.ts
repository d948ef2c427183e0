/** One port of a router or switch, as it tells by SNMP (IF-MIB, EtherLike-MIB, BRIDGE-MIB); null: it does not say. */
export interface Port {
  readonly index: number;
  readonly name: string;
  /** What somebody wrote beside it (ifAlias). */
  readonly label: string | null;
  readonly up: boolean | null;
  /** Mb/s. */
  readonly speedMbps: number | null;
  readonly duplex: 'full' | 'half' | null;
  readonly inBytes: number | null;
  readonly outBytes: number | null;
  /** Frames that were damaged, of them those with a wrong checksum, and frames for which there was no room. */
  readonly inErrors: number | null;
  readonly outErrors: number | null;
  readonly checksumErrors: number | null;
  readonly discards: number | null;
  /** Hardware addresses that it has heard behind the port. */
  readonly behind: readonly string[];
}

/** All ports at a moment. */
export interface PortReading {
  readonly atMs: number;
  /** How long the machine has been up, ms: less than before, and its counters began anew. */
  readonly upMs: number | null;
  /** Whether its byte counters have 64 bits; those of 32 come round within seconds on a fast line. */
  readonly wide: boolean;
  readonly ports: readonly Port[];
}

export interface PortsFound {
  readonly what: 'ports';
  readonly target: string;
  /** What it says that it is. */
  readonly system: string | null;
  /** Some seconds apart. */
  readonly before: PortReading;
  readonly after: PortReading;
}
