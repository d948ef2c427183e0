import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { openMailStandIn } from './mail-for-tests';
import { isPrivateAddress } from '@/wire/address';
import { mailSender, sendMail } from './send-mail';
import { sendWebhook, signatureOf, webhookSender, SIGNATURE_HEADER } from './send-webhook';

const MESSAGE = { id: 'm-1', subject: 'Über 100 ms', text: 'Tarnfell Fibre: 212 ms.\n.\nend' };
const TOLD = {
  ...MESSAGE,
  phase: 'began',
  office: 'Mill Lane',
  kind: 'added-delay',
  atMs: Date.UTC(2026, 10, 27),
} as const;

describe('a mail', () => {
  const server = (port: number) =>
    ({ host: '127.0.0.1', port, security: 'none', user: '', password: '', from: 'straw@quill.example' }) as const;

  it('arrives whole, with an id by which it is known again', async () => {
    const standIn = await openMailStandIn();
    await sendMail(server(standIn.port), 'ines@quill.example', MESSAGE);
    const [mail] = standIn.taken;
    expect(mail).toContain('To: ines@quill.example');
    expect(mail).toContain('Message-ID: <m-1@bent-straw>');
    expect(mail).toMatch(/Subject: =\?UTF-8\?/);
    expect(mail).toContain('Tarnfell Fibre: 212 ms.');
    await standIn.close();
  });

  it.each([
    ['a server that refuses', 'refuses', 'none', /550/],
    ['a server that cannot hide what is said, where that is wanted', 'takes', 'starttls', /STARTTLS|TLS/],
  ] as const)('is not sent by %s, and says why', async (_, mood, security, why) => {
    const standIn = await openMailStandIn(mood);
    await expect(sendMail({ ...server(standIn.port), security }, 'ines@quill.example', MESSAGE)).rejects.toThrow(why);
    expect(standIn.taken).toEqual([]);
    await standIn.close();
  });

  it('is given up where the server says nothing', async () => {
    const standIn = await openMailStandIn('hangs');
    await expect(mailSender(50)(server(standIn.port), 'ines@quill.example', MESSAGE)).rejects.toThrow(
      /timeout|Greeting/i,
    );
    await standIn.close();
  });

  it('is not sent where nobody listens', async () => {
    await expect(sendMail(server(9), 'ines@quill.example', MESSAGE)).rejects.toThrow(/ECONNREFUSED/);
  });
});

describe('a webhook', () => {
  let server: Server;
  let got: { readonly request: IncomingMessage; readonly body: string }[];
  let status = 204;
  let port: number;
  beforeAll(async () => {
    server = createServer((request, response) => {
      let body = '';
      request.on('data', (part: Buffer) => (body += part.toString()));
      request.on('end', () => {
        if (status === 0) return;
        got.push({ request, body });
        response.writeHead(status, status === 302 ? { Location: `http://127.0.0.1:${port}/elsewhere` } : {}).end();
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    ({ port } = server.address() as AddressInfo);
  });
  afterAll(() => new Promise((resolve) => server.close(resolve)));
  beforeEach(() => {
    [got, status] = [[], 204];
  });
  const target = (change = {}) => ({
    url: `http://127.0.0.1:${port}/told?by=straw`,
    secret: 's3',
    allowPrivate: true,
    ...change,
  });

  it('is JSON with its signature, and the same id each time that it is tried', async () => {
    await sendWebhook(target(), TOLD);
    const [{ request, body }] = got as [(typeof got)[number]];
    expect(request.url).toBe('/told?by=straw');
    expect(JSON.parse(body)).toEqual({
      ...{ id: 'm-1', phase: 'began', office: 'Mill Lane', kind: 'added-delay' },
      ...{ at: '2026-11-27T00:00:00.000Z', subject: 'Über 100 ms', text: MESSAGE.text },
    });
    expect(request.headers[SIGNATURE_HEADER.toLowerCase()]).toBe(signatureOf('s3', body));
    expect(signatureOf('s4', body)).not.toBe(signatureOf('s3', body));
    expect(request.headers['idempotency-key']).toBe('m-1');
  });

  it.each([
    [500, 'it answered 500'],
    [404, 'it answered 404'],
    [302, 'led elsewhere, which is not followed'],
  ])('that is answered with %d has not arrived', async (answered, why) => {
    status = answered;
    await expect(sendWebhook(target(), TOLD)).rejects.toThrow(why);
    expect(got).toHaveLength(1);
  });

  it('that is not answered is given up, and says so', async () => {
    status = 0;
    await expect(webhookSender(60)(target(), TOLD)).rejects.toThrow('it did not answer in 0.06 s');
  });

  it.each(['127.0.0.1', 'localhost', '[::1]', '0.0.0.0'])(
    'goes to nobody at %s, unless that is allowed',
    async (host) => {
      const url = `http://${host}:${port}/`;
      await expect(sendWebhook(target({ url, allowPrivate: false }), TOLD)).rejects.toThrow('its address is private');
      expect(got).toEqual([]);
    },
  );
});

describe('an address', () => {
  it.each([
    ...['10.1.2.3', '172.16.0.1', '172.31.255.255', '192.168.7.1', '169.254.1.1', '100.64.0.1', '127.8.8.8', '0.0.0.0'],
    ...['224.0.0.5', '255.255.255.255', '::1', '::', 'fe80::1', 'fd12::7', 'ff02::1', '::ffff:10.0.0.1'],
  ])('%s is private', (address) => expect(isPrivateAddress(address)).toBe(true));
  it.each(['198.51.100.7', '172.32.0.1', '100.128.0.1', '2001:db8::7', '::ffff:203.0.113.9'])('%s is not', (address) =>
    expect(isPrivateAddress(address)).toBe(false),
  );
});
