import { FarEndKeeper, type OpenedFarEnd } from './far-end-keeper';

const serve = (serveId: string, forMs = 60_000) =>
  ({ kind: 'serve', serveId, trust: 'key of the console', forMs }) as const;

function keeper(fails = false) {
  const trusted: string[] = [];
  const closed: number[] = [];
  const told: number[] = [];
  const open = (trust: string): Promise<OpenedFarEnd> => {
    trusted.push(trust);
    const port = 4871 + trusted.length;
    return fails
      ? Promise.reject(new Error('no port'))
      : Promise.resolve({ port, publicKey: 'mine', close: () => closed.push(port) });
  };
  return { of: new FarEndKeeper(open, (port) => told.push(port)), trusted, closed, told };
}

describe('an agent that serves as the far end', () => {
  it('says where, to whom it is open, and closes when the run is over', async () => {
    const { of, trusted, closed, told } = keeper();
    expect(await of.serve(serve('run-1'))).toEqual({ port: 4872, publicKey: 'mine' });
    expect([trusted, told]).toEqual([['key of the console'], [4872]]);
    of.end('another');
    expect(closed).toEqual([]);
    of.end('run-1');
    of.end('run-1');
    expect(closed).toEqual([4872]);
  });

  it('opens no second one for the same run', async () => {
    const { of, trusted } = keeper();
    const [first, again] = [of.serve(serve('run-1')), of.serve(serve('run-1'))];
    expect([await first, await again]).toEqual([{ port: 4872, publicKey: 'mine' }, null]);
    expect(await of.serve(serve('run-1'))).toBeNull();
    expect(trusted).toHaveLength(1);
  });

  it('closes by itself when nobody ends it in the time that was said, and all of them when it stops', async () => {
    jest.useFakeTimers();
    const { of, closed } = keeper();
    await of.serve(serve('run-1', 5000));
    await of.serve(serve('run-2'));
    jest.advanceTimersByTime(4999);
    expect(closed).toEqual([]);
    jest.advanceTimersByTime(1);
    expect(closed).toEqual([4872]);
    of.endAll();
    expect(closed).toEqual([4872, 4873]);
    jest.useRealTimers();
  });

  it('stays closed where the run is over, or the machine stops, before it has opened', async () => {
    const { of, closed, told } = keeper();
    const [ended, stopped] = [of.serve(serve('run-1')), of.serve(serve('run-2'))];
    of.end('run-1');
    of.endAll();
    expect([await ended, await stopped]).toEqual([null, null]);
    expect([closed, told]).toEqual([[4872, 4873], []]);
  });

  it('says that it cannot where no port is to be had, or where it is none at all', async () => {
    expect(await keeper(true).of.serve(serve('run-1'))).toBeNull();
    expect(await new FarEndKeeper(null, () => undefined).serve(serve('run-1'))).toBeNull();
  });
});
