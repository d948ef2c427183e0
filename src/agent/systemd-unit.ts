export interface UnitOptions {
  /** What it is, in a word or two: "agent". */
  readonly what: string;
  /** The program and its arguments. */
  readonly words: readonly string[];
  /** Folder below /var/lib that it may write. */
  readonly state: string;
  /** From so much memory on it is slowed down, and it keeps little; absent: never. */
  readonly memory?: string;
}

/**
 * glibc (mallopt(3)) keeps a pool of memory for each thread of a program, where Node's threads do little, and keeps more and more of what was
 * given back the more a program once took: with one pool and fixed limits an agent that has measured is 15 MB smaller.
 */
const ONE_POOL = 'Environment=MALLOC_ARENA_MAX=1 MALLOC_TRIM_THRESHOLD_=131072 MALLOC_MMAP_THRESHOLD_=131072';

/** A word as a unit file wants it (systemd.service(5), "Command lines"): in quotes where something in it means something there. */
const quoted = (word: string) =>
  /^[\w./:@=-]+$/.test(word) ? word : `"${word.replace(/["\\]/g, '\\$&').replace(/%/g, '%%').replace(/\$/g, '$$$$')}"`;

/** Of the words that a service is started with, those that lie where its unit hides what people have at home (ProtectHome). */
export function hiddenFromService(words: readonly string[]): readonly string[] {
  return words.filter((word) => /^\/(home|root|run\/user)\//.test(word));
}

/**
 * A systemd unit that keeps a program running: an own user that may write nothing but its state, restarted whatever happens
 * (systemd.exec(5)). It may send echo requests, and nothing else that others may not.
 */
export function systemdUnit({ what, words, state, memory }: UnitOptions): string {
  return `[Unit]
Description=Bent Straw ${what}
Documentation=file:/var/lib/${state}
Wants=network-online.target
After=network-online.target

[Service]
ExecStart=${words.map(quoted).join(' ')}
Restart=always
RestartSec=5
DynamicUser=yes
StateDirectory=${state}
Environment=XDG_STATE_HOME=%S
AmbientCapabilities=CAP_NET_RAW
CapabilityBoundingSet=CAP_NET_RAW
NoNewPrivileges=yes
ProtectSystem=strict
ProtectHome=yes
PrivateTmp=yes
PrivateDevices=yes
ProtectClock=yes
ProtectControlGroups=yes
ProtectHostname=yes
ProtectKernelLogs=yes
ProtectKernelModules=yes
ProtectKernelTunables=yes
RestrictAddressFamilies=AF_INET AF_INET6 AF_UNIX AF_NETLINK
RestrictNamespaces=yes
RestrictRealtime=yes
RestrictSUIDSGID=yes
LockPersonality=yes
SystemCallArchitectures=native
UMask=0077
${memory === undefined ? '' : `MemoryHigh=${memory}\n${ONE_POOL}\n`}
[Install]
WantedBy=multi-user.target
`;
}
