import { createSocket } from 'node:dgram';
import { readBindingRequest, writeBindingSuccess } from '@/wire';

/**
 * Answers STUN Binding requests of this machine itself: the data channel's stack asks for a server, and without one of
 * our own it would ask a public host. Nobody else is answered.
 */
export async function startStunAnswerer(): Promise<{ readonly port: number; close(): void }> {
  const socket = createSocket('udp4');
  socket.on('message', (bytes, from) => {
    const transactionId = readBindingRequest(bytes);
    if (transactionId !== null)
      socket.send(writeBindingSuccess(transactionId, from.address, from.port), from.port, from.address);
  });
  socket.on('error', () => undefined);
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  return { port: socket.address().port, close: () => socket.close() };
}
