/** "HOST" or "HOST:PORT", with brackets around an address of IPv6 that has a port. */
export function hostAndPort(target: string, usualPort: number): { readonly host: string; readonly port: number } {
  const [, host, port] = /^\[?([^\]]+?)\]?(?::(\d+))?$/.exec(target) ?? [];
  return { host: host ?? target, port: Number(port ?? usualPort) };
}
