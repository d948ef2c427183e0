import { createSocket } from 'node:dgram';
import { XMLParser } from 'fast-xml-parser';
import { httpRequest, type HttpAnswer, type HttpOrder } from '@/client/node';
import { isPrivateAddress } from '@/wire/address';
import { LookFault } from './look-fault';

/** Where everybody who speaks it listens (UPnP Device Architecture 1.1, 1.3). */
const EVERYBODY = { address: '239.255.255.250', port: 1900 };
const SEARCH_MS = 2500;
const PATIENCE_MS = 4000;
const MOST_BYTES = 512 * 1024;
const KINDS = [1, 2].map((version) => `urn:schemas-upnp-org:device:InternetGatewayDevice:${version}`);

/** A service of the router's, and where it is asked. */
export interface IgdService {
  readonly type: string;
  readonly url: string;
}

export interface Igd {
  readonly name: string;
  readonly address: string;
  readonly services: readonly IgdService[];
}

const search = (kind: string, { address, port }: typeof EVERYBODY) =>
  ['M-SEARCH * HTTP/1.1', `HOST: ${address}:${port}`, 'MAN: "ssdp:discover"', 'MX: 1', `ST: ${kind}`, '', ''].join(
    '\r\n',
  );

/**
 * Where a router describes itself. Only whoever answers may be asked, and only in this network: an answer that leads elsewhere is
 * none of a router's. Null: nobody answered.
 */
function locate(to: typeof EVERYBODY, signal: AbortSignal): Promise<{ url: string; address: string } | null> {
  return new Promise((resolve) => {
    const socket = createSocket('udp4');
    const end = (found: { url: string; address: string } | null) => {
      clearTimeout(timer);
      signal.removeEventListener('abort', stop);
      socket.close();
      resolve(found);
    };
    const stop = () => end(null);
    const timer = setTimeout(stop, SEARCH_MS);
    signal.addEventListener('abort', stop);
    socket.on('error', () => undefined);
    socket.on('message', (text, { address }) => {
      const url = /^location:\s*(\S+)\s*$/im.exec(text.toString())?.[1];
      if (url === undefined || !URL.canParse(url)) return;
      const { hostname, protocol } = new URL(url);
      if (protocol === 'http:' && hostname === address && isPrivateAddress(address)) end({ url, address });
    });
    for (const kind of KINDS) socket.send(search(kind, to), to.port, to.address);
  });
}

/** A body of limited size; nothing that leads elsewhere is followed. Rejects where nobody answers, or too much. */
function read(url: string, order: Pick<HttpOrder, 'method' | 'headers' | 'body'>): Promise<HttpAnswer> {
  const limits = { signal: AbortSignal.timeout(PATIENCE_MS), mostBytes: MOST_BYTES };
  return httpRequest(new URL(url), { ...order, ...limits }, 0);
}

type Tree = Readonly<Record<string, unknown>>;
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null;
const many = (value: unknown): Tree[] => (Array.isArray(value) ? value : [value]).filter(isTree);
const textOf = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : null);
const parser = new XMLParser({ removeNSPrefix: true, parseTagValue: false, processEntities: true });

/** Services of a device and of those within it (UPnP Device Architecture 1.1, 2.3). */
function servicesOf(device: Tree, base: string): IgdService[] {
  const own = many((device['serviceList'] as Tree | undefined)?.['service']).flatMap((service): IgdService[] => {
    const [type, control] = [textOf(service['serviceType']), textOf(service['controlURL'])];
    if (type === null || control === null || !URL.canParse(control, base)) return [];
    const url = new URL(control, base);
    // It describes itself, and nobody else.
    return url.host === new URL(base).host ? [{ type, url: url.href }] : [];
  });
  const inner = many((device['deviceList'] as Tree | undefined)?.['device']);
  return [...own, ...inner.flatMap((each) => servicesOf(each, base))];
}

/** The router of this network that speaks UPnP IGD; null: none does. `to`: whom to search. */
export async function findIgd(signal: AbortSignal, to = EVERYBODY): Promise<Igd | null> {
  const found = await locate(to, signal);
  if (found === null) return null;
  const { text } = await read(found.url, { method: 'GET' });
  const root = (parser.parse(text) as Tree)['root'];
  const device = isTree(root) ? root['device'] : undefined;
  if (!isTree(device)) throw new LookFault('igd-odd', { target: found.address });
  const name = textOf(device['friendlyName'])?.slice(0, 120) ?? found.address;
  return { name, address: found.address, services: servicesOf(device, found.url) };
}

/** Asks a service for something that needs no arguments (SOAP 1.1); the values by name. Null: it does not do that. */
export async function askIgd(
  { type, url }: IgdService,
  action: string,
): Promise<Readonly<Record<string, string>> | null> {
  const { ok, text } = await read(url, {
    method: 'POST',
    headers: { 'Content-Type': 'text/xml; charset="utf-8"', SOAPAction: `"${type}#${action}"` },
    body: `<?xml version="1.0"?><s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/" s:encodingStyle="http://schemas.xmlsoap.org/soap/encoding/"><s:Body><u:${action} xmlns:u="${type}"></u:${action}></s:Body></s:Envelope>`,
  });
  if (!ok) return null;
  const envelope = (parser.parse(text) as Tree)['Envelope'];
  const body = isTree(envelope) ? envelope['Body'] : undefined;
  const answer = isTree(body) ? body[`${action}Response`] : undefined;
  if (!isTree(answer)) return null;
  return Object.fromEntries(
    Object.entries(answer).flatMap(([name, value]) => {
      const text = textOf(value);
      return text === null ? [] : [[name, text]];
    }),
  );
}
