import { createServer, type AddressInfo, type Socket } from 'node:net';

/** A server that takes mail as RFC 5321 has it, and keeps it; or one that refuses, or says nothing. */
export async function openMailStandIn(mood: 'takes' | 'refuses' | 'hangs' = 'takes') {
  const taken: string[] = [];
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
    socket.on('error', () => socket.destroy());
    if (mood === 'hangs') return;
    let [text, inData] = ['', false];
    const say = (line: string) => socket.write(`${line}\r\n`);
    say('220 stand-in');
    socket.on('data', (part) => {
      text += part.toString();
      for (;;) {
        const end = text.indexOf(inData ? '\r\n.\r\n' : '\r\n');
        if (end === -1) return;
        const line = text.slice(0, end);
        text = text.slice(end + (inData ? 5 : 2));
        if (inData) {
          inData = false;
          taken.push(line);
          say('250 kept');
        } else if (/^EHLO|^HELO/.test(line)) say('250 stand-in');
        else if (line === 'STARTTLS') say('502 not here');
        else if (line.startsWith('MAIL')) say(mood === 'refuses' ? '550 not from here' : '250 fine');
        else if (line === 'DATA') {
          inData = true;
          say('354 go on');
        } else if (line === 'QUIT') {
          say('221 bye');
          socket.end();
        } else say('250 fine');
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: (server.address() as AddressInfo).port,
    taken,
    close: () => {
      for (const socket of sockets) socket.destroy();
      return new Promise<void>((resolve) => server.close(() => resolve()));
    },
  };
}
