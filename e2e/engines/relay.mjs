/** Run inside a namespace: hands what comes over a Unix socket to a port on its loopback. node relay.mjs SOCKET PORT */
import { connect, createServer } from 'node:net';

const [path, port] = process.argv.slice(2);
createServer((from) => {
  const to = connect(Number(port), '127.0.0.1');
  for (const [one, other] of [
    [from, to],
    [to, from],
  ]) {
    one.pipe(other);
    one.on('error', () => other.destroy());
  }
}).listen(path, () => process.stderr.write('ready\n'));
