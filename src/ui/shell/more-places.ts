/** Places without a letter, with what else they are called by whoever looks for them. */
export const MORE_PLACES: readonly {
  readonly name: string;
  readonly href: string;
  readonly called: readonly string[];
}[] = [
  {
    name: 'Being told: by mail or by a program, of what, and whether it arrived',
    href: '/told',
    called: ['alert', 'alarm', 'notify', 'email', 'mail', 'webhook', 'digest', 'metrics', 'warn'],
  },
  {
    name: 'The path to a host, hop by hop',
    href: '/look?what=path',
    called: ['route', 'hops', 'routers', 'mtu', 'way', 'trace', 'look'],
  },
  {
    name: 'Resolvers side by side: which one to take',
    href: '/look?what=names',
    called: ['dns', 'names', 'nameserver', 'lookup', 'domain', 'pages open slowly', 'look'],
  },
  {
    name: 'What a share can do: written and read back',
    href: '/look?what=share',
    called: ['nas', 'smb', 'nfs', 'disk', 'store', 'samba', 'folder', 'file server', 'look'],
  },
  {
    name: 'Look from a machine: delay to a host, programs on the line',
    href: '/look?what=echo',
    called: ['ping', 'echo', 'icmp', 'program', 'process', 'bandwidth', 'who uses the line', 'host'],
  },
  {
    name: 'The air: which channel to take',
    href: '/look?what=air',
    called: ['wifi', 'wi-fi', 'wlan', 'channel', 'radio', 'scan', 'interference', 'access point', 'look'],
  },
  {
    name: 'Ports of a switch or router: speed, duplex, damaged frames',
    href: '/look?what=ports',
    called: ['snmp', 'switch', 'router', 'counter', 'error', 'duplex', 'crc', 'interface', 'look'],
  },
  {
    name: 'The line’s own counters: what everybody moves now',
    href: '/look?what=line',
    called: ['igd', 'upnp', 'wan', 'router', 'who uses the line', 'usage', 'others', 'look'],
  },
  {
    name: 'This office from outside: its address, and whether a port answers',
    href: '/look?what=outside',
    called: ['nat', 'cgnat', 'public address', 'port forwarding', 'open port', 'reachable', 'ipv6', 'wan ip', 'look'],
  },
  { name: 'People, sign-ins, your passphrase', href: '/people', called: ['user', 'password', 'token', 'account'] },
  {
    name: 'Bring runs in from a file',
    href: '/ledger/bring-in',
    called: ['import', 'csv', 'json', 'upload', 'file', 'spreadsheet', 'excel', 'load', 'old'],
  },
  {
    name: 'How long a copy takes',
    href: '/copy',
    called: ['copy', 'backup', 'transfer', 'upload', 'download', 'how long', 'gigabytes', 'duration', 'file'],
  },
  {
    name: 'A report of the month, of days, of a hunt or a change',
    href: '/report',
    called: ['report', 'boss', 'month', 'print', 'pdf', 'summary', 'week', 'send', 'customer'],
  },
  { name: 'What happened: who did what', href: '/happened', called: ['audit', 'log', 'history'] },
  { name: 'All offices side by side', href: '/sites', called: ['sites', 'customers', 'overview'] },
];
