/** A server that takes mail. */
export interface MailServer {
  readonly host: string;
  readonly port: number;
  /** `tls`: from the first byte; `starttls`: before anything is said, or nothing is sent; `none`: readable on the way. */
  readonly security: 'tls' | 'starttls' | 'none';
  readonly user: string;
  /** Empty: it asks for none. */
  readonly password: string;
  readonly from: string;
}

export interface Message {
  /** The same each time that it is tried: whoever gets it twice can tell. */
  readonly id: string;
  readonly subject: string;
  readonly text: string;
}

/** What a program is told. */
export interface WebhookMessage extends Message {
  readonly phase: 'began' | 'over' | 'digest' | 'test';
  readonly office: string;
  readonly kind: string | null;
  readonly atMs: number;
}

/** How messages leave the console. Each resolves when the other side has taken it, and rejects with why it has not. */
export interface Senders {
  mail(server: MailServer, to: string, message: Message): Promise<void>;
  webhook(
    target: { readonly url: string; readonly secret: string; readonly allowPrivate: boolean },
    message: WebhookMessage,
  ): Promise<void>;
}
