import { createTransport } from 'nodemailer';
import type { Senders } from '../console/senders';

const PATIENCE_MS = 15_000;

/** What sends messages by SMTP (RFC 5321). Its id is the Message-ID: a server that got it before can tell. */
export const mailSender =
  (patienceMs: number): Senders['mail'] =>
  async ({ host, port, security, user, password, from }, to, message) => {
    const transport = createTransport({
      ...{
        host,
        port,
        secure: security === 'tls',
        requireTLS: security === 'starttls',
        ignoreTLS: security === 'none',
      },
      ...{ connectionTimeout: patienceMs, greetingTimeout: patienceMs, socketTimeout: patienceMs },
      ...(user === '' ? {} : { auth: { user, pass: password } }),
      // What is read from a file or an address is never meant.
      ...{ disableFileAccess: true, disableUrlAccess: true },
    });
    try {
      await transport.sendMail({
        ...{ from, to, subject: message.subject, text: message.text },
        messageId: `<${message.id}@bent-straw>`,
        headers: { 'Auto-Submitted': 'auto-generated' },
      });
    } finally {
      transport.close();
    }
  };

export const sendMail = mailSender(PATIENCE_MS);
