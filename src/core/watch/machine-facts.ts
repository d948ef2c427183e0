/** One network interface of a machine, as its system tells it; null: it does not say. */
export interface NetLink {
  readonly name: string;
  readonly medium: 'wired' | 'wifi' | 'tunnel' | 'other';
  readonly up: boolean;
  /** Negotiated rate, Mb/s. */
  readonly speedMbps: number | null;
  readonly duplex: 'full' | 'half' | null;
  readonly mtuBytes: number | null;
  readonly driver: string | null;
  readonly addresses: readonly string[];
}

/** What a machine that stands by sees of itself. */
export interface MachineFacts {
  /** Such as "Debian GNU/Linux 12 (bookworm), x64". */
  readonly system: string;
  readonly gateway: { readonly address: string; readonly link: string } | null;
  /** Round trip to the gateway, the least of a few, ms; null: it does not answer, or cannot be asked. */
  readonly gatewayMs: number | null;
  readonly resolvers: readonly string[];
  readonly links: readonly NetLink[];
}

/** What of a link is worth telling when it changes. */
export const LINK_FACTS = ['speedMbps', 'duplex', 'mtuBytes', 'driver'] as const;
export type LinkFact = (typeof LINK_FACTS)[number];

/** A fact of a link that is another one than before. */
export interface LinkChange {
  readonly link: string;
  readonly fact: LinkFact;
  readonly before: string;
  readonly after: string;
}

/**
 * What changed of the links that are up both times. A fact that is not known on one side has not changed: a system that
 * says nothing for a moment (a cable that is out) tells nothing.
 */
export function linkChanges(before: MachineFacts, after: MachineFacts): LinkChange[] {
  return after.links.flatMap((link) => {
    const was = before.links.find(({ name }) => name === link.name);
    if (was === undefined || !was.up || !link.up) return [];
    return LINK_FACTS.flatMap((fact): LinkChange[] => {
      const [old, now] = [was[fact], link[fact]];
      if (old === null || now === null || old === now) return [];
      return [{ link: link.name, fact, before: String(old), after: String(now) }];
    });
  });
}
