import { createSocket, type Socket } from 'node:dgram';
import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { lineRates } from '@/core';
import { lookAtLine } from './line';
import { LookFault } from './look-fault';

const COMMON = 'urn:schemas-upnp-org:service:WANCommonInterfaceConfig:1';
const CONNECTION = 'urn:schemas-upnp-org:service:WANIPConnection:1';

const described = (control: string) => `<?xml version="1.0"?><root xmlns="urn:schemas-upnp-org:device-1-0"><device>
  <friendlyName>office router</friendlyName><deviceList><device><serviceList>
    <service><serviceType>${COMMON}</serviceType><controlURL>${control}</controlURL></service></serviceList>
    <deviceList><device><serviceList><service><serviceType>${CONNECTION}</serviceType><controlURL>/ip</controlURL></service></serviceList></device></deviceList>
  </device></deviceList></device></root>`;

/** A router of this machine that speaks UPnP IGD. */
describe('the line’s own counters', () => {
  let web: Server;
  let udp: Socket;
  let location: string;
  let description: string;
  let values: Record<string, Record<string, string | number>>;
  let asked: string[];
  let to: { address: string; port: number };

  const answer = (request: IncomingMessage, response: ServerResponse) => {
    if (request.method === 'GET') return void response.end(description);
    const action = /#(\w+)"$/.exec(String(request.headers['soapaction']))?.[1] ?? '';
    asked.push(action);
    const said = values[action];
    if (said === undefined) {
      response
        .writeHead(500)
        .end(
          '<s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"><s:Body><s:Fault/></s:Body></s:Envelope>',
        );
      return;
    }
    const fields = Object.entries(said).map(([name, value]) => `<${name}>${value}</${name}>`);
    response.end(
      `<?xml version="1.0"?><s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"><s:Body><u:${action}Response xmlns:u="${COMMON}">${fields.join('')}</u:${action}Response></s:Body></s:Envelope>`,
    );
  };
  beforeEach(async () => {
    [asked, description] = [[], described('/common')];
    values = {
      GetTotalBytesReceived: { NewTotalBytesReceived: 1000 },
      GetTotalBytesSent: { NewTotalBytesSent: 2 ** 32 - 100 },
      GetCommonLinkProperties: { NewLayer1DownstreamMaxBitRate: 500_000_000, NewLayer1UpstreamMaxBitRate: 100_000_000 },
      GetExternalIPAddress: { NewExternalIPAddress: '203.0.113.9' },
    };
    web = createServer(answer);
    await once(web.listen(0, '127.0.0.1'), 'listening');
    location = `http://127.0.0.1:${(web.address() as AddressInfo).port}/root.xml`;
    udp = createSocket('udp4').on('message', (text, from) => {
      if (!/^M-SEARCH \* HTTP\/1\.1\r\n/.test(text.toString())) return;
      udp.send(`HTTP/1.1 200 OK\r\nLOCATION: ${location}\r\nST: x\r\n\r\n`, from.port, from.address);
    });
    await new Promise<void>((resolve) => udp.bind(0, '127.0.0.1', resolve));
    to = { address: '127.0.0.1', port: udp.address().port };
  });
  afterEach(() => {
    web.close();
    udp.close();
  });
  const look = () => lookAtLine({ what: 'line', seconds: 0.4 }, new AbortController().signal, to);
  const codeOf = () =>
    look().then(
      () => 'it worked',
      (error: unknown) => (error instanceof LookFault ? error.code : error),
    );

  it('are read twice, with what the line came up with and its address outside', async () => {
    const looking = look();
    while (!asked.includes('GetTotalBytesSent')) await new Promise(setImmediate);
    values = {
      ...values,
      GetTotalBytesReceived: { NewTotalBytesReceived: 1_001_000 },
      // It came round meanwhile.
      GetTotalBytesSent: { NewTotalBytesSent: 99_900 },
    };
    const found = await looking;
    expect(found).toMatchObject({
      ...{ router: 'office router', address: '127.0.0.1', outsideAddress: '203.0.113.9' },
      ...{ linkDownBps: 500e6, linkUpBps: 100e6 },
    });
    const ms = found.after.atMs - found.before.atMs;
    expect(lineRates(found).downBps).toBeCloseTo((8000 * 1e6) / ms, 3);
    expect(lineRates(found).upBps).toBeCloseTo((8000 * 100_000) / ms, 3);
    expect(asked.every((action) => action.startsWith('Get'))).toBe(true);
  });

  it('nobody who answers is said as that', async () => {
    udp.removeAllListeners('message');
    expect(await codeOf()).toBe('igd-none');
  });

  it.each(['http://192.0.2.66/root.xml', 'https://127.0.0.1/root.xml', 'file:///etc/passwd', 'nonsense'])(
    'an answer that leads elsewhere (%s) is followed nowhere',
    async (elsewhere) => {
      location = elsewhere;
      expect(await codeOf()).toBe('igd-none');
    },
  );

  it('a service that lies elsewhere is not asked', async () => {
    description = described('http://192.0.2.66/common');
    expect(await codeOf()).toBe('igd-odd');
    expect(asked).toEqual([]);
  });

  it.each([
    ['no counters', () => void (values = { GetExternalIPAddress: { NewExternalIPAddress: 'x' } }), 'igd-odd'],
    [
      'counters that are no numbers',
      () => void (values['GetTotalBytesSent'] = { NewTotalBytesSent: 'many' }),
      'igd-odd',
    ],
    ['garbage', () => void (description = '<root><device>'), 'igd-odd'],
    ['more than a router would say', () => void (description = `<root>${'x'.repeat(600_000)}</root>`), 'look-failed'],
  ] as const satisfies readonly (readonly [string, () => void, string])[])(
    '%s: said as that',
    async (_, change, code) => {
      change();
      const found = await codeOf();
      expect(found instanceof Error ? 'look-failed' : found).toBe(code);
    },
  );

  it('what a router does not tell is not known, never 0', async () => {
    delete values['GetCommonLinkProperties'];
    delete values['GetExternalIPAddress'];
    expect(await look()).toMatchObject({ linkDownBps: null, linkUpBps: null, outsideAddress: null });
  });
});
