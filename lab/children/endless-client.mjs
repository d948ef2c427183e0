/** Takes what comes from a server until it is stopped. `node endless-client.mjs HOST PORT` */
import { connect } from 'node:net';

const socket = connect(Number(process.argv[3]), process.argv[2], () => process.stdout.write('connected\n'));
socket.on('error', () => process.exit(1));
socket.resume();
process.stdin.on('end', () => process.exit(0)).resume();
