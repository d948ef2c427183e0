import { noteEcho, noteProbe } from '../run/run-log';
import { EMPTY_LOG } from '../run/run-state';
import { watchHandedOn } from './handed-on';

/** A socket that hands on what it holds when it is told to, and an event loop that comes round once a millisecond. */
function browser() {
  let ms = 0;
  const looks: (() => void)[] = [];
  const socket = { bufferedAmount: 0 };
  const handedOn = watchHandedOn(socket, { nowMs: () => ms, soon: (look) => looks.push(look) });
  const pass = (forMs: number) => {
    for (let step = 0; step < forMs; step += 1) {
      ms += 1;
      for (const look of looks.splice(0)) look();
    }
  };
  return { socket, handedOn, pass, looks };
}

describe('how long a probe lies in the browser', () => {
  it('is nothing where it is handed on at once, or as soon as that is always said', () => {
    const { socket, handedOn, pass } = browser();
    handedOn.sent(0);
    socket.bufferedAmount = 4;
    handedOn.sent(1);
    socket.bufferedAmount = 0;
    pass(1);
    expect([handedOn.waitedMs(0), handedOn.waitedMs(1)]).toEqual([0, 0]);
  });

  it('is the time until the socket holds nothing any more, without what saying so takes', () => {
    const { socket, handedOn, pass } = browser();
    socket.bufferedAmount = 4;
    handedOn.sent(7);
    pass(9);
    expect(handedOn.waitedMs(7)).toBe(0);
    socket.bufferedAmount = 0;
    pass(1);
    expect(handedOn.waitedMs(7)).toBe(9);
  });

  it('is told of each of several that lie there together', () => {
    const { socket, handedOn, pass } = browser();
    socket.bufferedAmount = 4;
    handedOn.sent(1);
    pass(5);
    handedOn.sent(2);
    pass(5);
    socket.bufferedAmount = 0;
    pass(1);
    expect([handedOn.waitedMs(1), handedOn.waitedMs(2)]).toEqual([10, 5]);
  });

  it('is not looked at for ever', () => {
    const { socket, handedOn, pass, looks } = browser();
    socket.bufferedAmount = 4;
    handedOn.sent(1);
    pass(100);
    expect([looks.length, handedOn.waitedMs(1)]).toEqual([0, 0]);
  });

  it('is no part of the round trip, nor of where the peer’s clock stands', () => {
    const sent = noteProbe(EMPTY_LOG, 0, 100);
    const log = noteEcho(sent, { sequence: 0, nowMs: 150, peerMs: 1130, waitedMs: 10 });
    expect([log.sentMs, log.rttMs]).toEqual([[100], [40]]);
    expect(log.clock).toEqual({ offsetMs: 130 - 1130, rttMs: 40 });
  });
});
