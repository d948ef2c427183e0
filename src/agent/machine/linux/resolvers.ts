/** Servers that /etc/resolv.conf names (resolv.conf(5)). */
export function readResolvConf(text: string): string[] {
  return text.split('\n').flatMap((line) => {
    const found = /^\s*nameserver\s+(\S+)/.exec(line);
    return found === null ? [] : [found[1]!];
  });
}

/** Servers that `resolvectl dns` prints behind the colon of each link. */
export function readResolvectl(text: string): string[] {
  const all = text.split('\n').flatMap((line) => (/^[^:]*:\s+(.*)$/.exec(line)?.[1] ?? '').split(/\s+/));
  return [...new Set(all.map((server) => server.replace(/[%#].*$/, '')).filter((server) => server !== ''))];
}

/** Whether it is the machine's own stub, behind which the real ones stand. */
export const isStub = (server: string) => /^127\.|^::1$/.test(server);
