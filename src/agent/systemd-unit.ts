export interface UnitOptions {
  readonly node: string;
  readonly program: string;
  readonly stateFolder: string;
}

/** A path as a unit file wants it (systemd.service(5), "Command lines"): in quotes, with what means something there escaped. */
const quoted = (path: string) => `"${path.replace(/["\\]/g, '\\$&').replace(/%/g, '%%').replace(/\$/g, '$$$$')}"`;

/**
 * A systemd unit that keeps the agent standing by: an own user that may write nothing but its state, restarted whatever
 * happens (systemd.exec(5)). `stateFolder`: below /var/lib.
 */
export function systemdUnit({ node, program, stateFolder }: UnitOptions): string {
  return `[Unit]
Description=Bent Straw agent
Documentation=file:${stateFolder}
Wants=network-online.target
After=network-online.target

[Service]
ExecStart=${quoted(node)} ${quoted(program)} serve
Restart=always
RestartSec=5
DynamicUser=yes
StateDirectory=bent-straw
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
MemoryHigh=200M

[Install]
WantedBy=multi-user.target
`;
}
