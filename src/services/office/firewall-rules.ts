/** What a firewall of this machine says of a TCP port, and the step that is missing; null where it has no say. */
export interface FirewallSays {
  readonly name: string;
  readonly open: boolean;
  /** A command to type, as root. */
  readonly step: string;
}

/** From `ufw status`: a rule names the port alone, with /tcp, or in a range. */
export function readUfw(text: string, port: number): FirewallSays | null {
  if (!/^Status: active/m.test(text)) return null;
  const open = [...text.matchAll(/^(\d+)(?::(\d+))?(?:\/tcp)?(?: \(v6\))?\s+ALLOW/gm)].some(
    ([, from, to]) => port >= Number(from) && port <= Number(to ?? from),
  );
  return { name: 'ufw', open, step: `ufw allow ${port}/tcp` };
}

/** From `firewall-cmd --list-ports`: "4870/tcp 5000-5010/tcp"; null when the daemon does not run. */
export function readFirewalld(text: string | null, port: number): FirewallSays | null {
  if (text === null) return null;
  const open = [...text.matchAll(/(\d+)(?:-(\d+))?\/tcp/g)].some(
    ([, from, to]) => port >= Number(from) && port <= Number(to ?? from),
  );
  return { name: 'firewalld', open, step: `firewall-cmd --add-port=${port}/tcp --permanent && firewall-cmd --reload` };
}

/** From `nft list ruleset`: chains of the input hook that drop by policy, and whether they name the port. */
export function readNft(text: string, port: number): FirewallSays | null {
  const chains = [...text.matchAll(/table (\w+) (\S+) \{|chain (\S+) \{([^}]*)\}/g)];
  let table = '';
  for (const [, family, tableName, chain, body] of chains) {
    if (tableName !== undefined) table = `${family} ${tableName}`;
    if (body === undefined || !/hook input .*policy drop/.test(body)) continue;
    const names = [...body.matchAll(/tcp dport (\{[^}]*|[\d-]+)[^\n]*accept/g)].flatMap(([, ports]) => [
      ...ports!.matchAll(/(\d+)(?:-(\d+))?/g),
    ]);
    const open = names.some(([, from, to]) => port >= Number(from) && port <= Number(to ?? from));
    return { name: 'nftables', open, step: `nft insert rule ${table} ${chain} tcp dport ${port} accept` };
  }
  return null;
}
