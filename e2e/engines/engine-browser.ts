import { openFirefox } from './firefox';
import { openWebKit } from './webkit';

/** A browser that is no Chromium, driven by an open standard of the W3C. */
export interface EngineBrowser {
  readonly name: EngineName;
  open(url: string): Promise<void>;
  /** The value of an expression in the page, a promise waited for. Our content policy stops `eval`: send the expression itself. */
  evaluate<Value>(expression: string): Promise<Value>;
  /** A picture of what is seen, PNG. */
  screenshot(): Promise<Buffer>;
  close(): Promise<void>;
}

export const ENGINE_NAMES = ['Firefox', 'WebKit'] as const;
export type EngineName = (typeof ENGINE_NAMES)[number];

/** `netns`: the network namespace in which it runs; null: this machine's own. */
export function openEngine(name: EngineName, netns: string | null = null): Promise<EngineBrowser> {
  return name === 'Firefox' ? openFirefox(netns) : openWebKit(netns);
}
