import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { httpRequest } from './http-request';

describe('a request of the agent', () => {
  const open: Server[] = [];
  afterEach(() => {
    for (const server of open.splice(0)) {
      server.closeAllConnections();
      server.close();
    }
  });

  async function serve(answer: (request: IncomingMessage, response: ServerResponse, body: string) => void) {
    const server = createServer((request, response) => {
      let body = '';
      request.on('data', (part: Buffer) => (body += part.toString()));
      request.on('end', () => answer(request, response, body));
    }).listen(0, '127.0.0.1');
    open.push(server);
    await once(server, 'listening');
    return new URL(`http://127.0.0.1:${(server.address() as AddressInfo).port}/here`);
  }

  it('brings the body there, and the answer with its cookies back', async () => {
    const url = await serve(({ method, headers }, response, body) => {
      response.writeHead(201, { 'Set-Cookie': ['a=1', 'b=2; HttpOnly'] });
      response.end(JSON.stringify({ method, type: headers['content-type'], length: headers['content-length'], body }));
    });
    const headers = { 'Content-Type': 'application/json' };
    const answer = await httpRequest(url, { method: 'POST', headers, body: '{"name":"Müller"}' });
    expect(answer).toMatchObject({ status: 201, ok: true, setCookies: ['a=1', 'b=2; HttpOnly'] });
    expect(await answer.json()).toEqual({
      ...{ method: 'POST', type: 'application/json', length: '18', body: '{"name":"Müller"}' },
    });
  });

  it('tells a refusal by its status, and what is no JSON by rejecting', async () => {
    const url = await serve((_, response) => response.writeHead(502).end('<html>'));
    const answer = await httpRequest(url, { method: 'GET' });
    expect([answer.ok, answer.status, answer.setCookies]).toEqual([false, 502, []]);
    await expect(answer.json()).rejects.toThrow(SyntaxError);
  });

  it('goes with its body where the same host sends it, a few times and no more', async () => {
    const url = await serve(({ url: path }, response, body) => {
      if (path === '/round') response.writeHead(307, { Location: '/round' }).end();
      else if (path === '/here') response.writeHead(308, { Location: '/there' }).end();
      else response.end(JSON.stringify({ path, body }));
    });
    expect(await (await httpRequest(url, { method: 'POST', body: 'x' })).json()).toEqual({ path: '/there', body: 'x' });
    await expect(httpRequest(new URL('/round', url), { method: 'POST' })).rejects.toThrow('sends to /round');
  });

  it.each(['http://localhost:1/', 'file:///etc/passwd', 'http://['])('does not follow to %s', async (location) => {
    const url = await serve((_, response) => response.writeHead(308, { Location: location }).end());
    await expect(httpRequest(url, { method: 'POST', headers: { Cookie: 'mine' } })).rejects.toThrow('sends to');
  });

  it('gives up an answer that does not end', async () => {
    const url = await serve((_, response) => {
      const more = () => {
        while (response.write(Buffer.alloc(1_000_000)));
        response.once('drain', more);
      };
      more();
    });
    await expect(httpRequest(url, { method: 'GET' })).rejects.toThrow('longer than 32 MB');
  });

  it('ends when it is called off, before the answer and in the middle of it', async () => {
    const silent = await serve(() => undefined);
    const halfway = await serve((_, response) => response.write('{'));
    for (const url of [silent, halfway]) {
      const signal = AbortSignal.timeout(100);
      await expect(httpRequest(url, { method: 'GET', signal })).rejects.toThrow(/aborted/);
    }
  });

  it('says who did not answer', async () => {
    const url = await serve(() => undefined);
    open[0]!.close();
    await once(open[0]!, 'close');
    await expect(httpRequest(url, { method: 'GET' })).rejects.toThrow(/ECONNREFUSED/);
  });
});
