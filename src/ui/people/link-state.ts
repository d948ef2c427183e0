/** How the making of a link stands by which somebody sets a passphrase. */
export type LinkState =
  | { readonly status: 'untouched' }
  | { readonly status: 'refused'; readonly why: string }
  | { readonly status: 'made'; readonly name: string; readonly address: string; readonly untilMs: number };

export const NO_LINK: LinkState = { status: 'untouched' };
