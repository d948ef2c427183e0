import { once } from 'node:events';
import { createServer, type AddressInfo } from 'node:net';
import fc from 'fast-check';
import { listenFault, ProgramFault } from '../faults/program-faults';
import { distinctLoopbackPorts, mustBeFree, readPort, readPortRange } from './free-port';

const codeOf = (act: () => unknown) => {
  try {
    return act();
  } catch (error) {
    if (error instanceof ProgramFault) return error.code;
    throw error;
  }
};

describe('ports from the command line', () => {
  it('takes every port there is', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 65_535 }), (port) => readPort(String(port)) === port));
  });

  it.each(['', ' ', '0', '-1', '65536', '48.7', '4870x', '4870,', 'NaN', 'Infinity', '٤٨٧٠'])(
    'refuses %p, with how one is given',
    (text) => {
      expect(codeOf(() => readPort(text))).toBe('port-invalid');
      expect(() => readPort(text)).toThrow('Give a whole number from 1 to 65535: --port 4870.');
    },
  );

  it('takes a range from low to high, and says what it is for anything else', () => {
    expect(readPortRange('4900-4931')).toEqual([4900, 4931]);
    for (const text of ['4900', '4931-4900', '4900-4900', '4900 - 4931', 'a-b', '-4900', '4900-'])
      expect(codeOf(() => readPortRange(text))).toBe('port-range-invalid');
    expect(codeOf(() => readPortRange('4900-70000'))).toBe('port-invalid');
  });
});

describe('ports of this machine', () => {
  it('tells one that is taken, with another to choose, from one that may not be opened', async () => {
    const server = createServer().listen(0);
    await once(server, 'listening');
    const { port } = server.address() as AddressInfo;
    await expect(mustBeFree(port)).rejects.toMatchObject({
      code: 'port-busy',
      message: expect.stringContaining(`--port ${port + 10}`) as string,
    });
    server.close();
    await once(server, 'close');
    await expect(mustBeFree(port)).resolves.toBeUndefined();
    const forbidden = listenFault(Object.assign(new Error('no'), { code: 'EACCES' }), 80);
    expect([forbidden.code, forbidden.message]).toEqual([
      'port-forbidden',
      'Port 80 may not be opened by this user. Choose one above 1023: --port 4870.',
    ]);
  });

  it('gives none twice', async () => {
    const next = distinctLoopbackPorts();
    const given: number[] = [];
    for (let time = 0; time < 40; time += 1) given.push(await next());
    expect(new Set(given).size).toBe(40);
  });
});
