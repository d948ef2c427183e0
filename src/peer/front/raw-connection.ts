import { Socket } from 'node:net';

/** A socket as Node makes it for a server: the handle below it is not in its types. */
interface ServerSocket extends Socket {
  _handle?: object | null;
}

/**
 * After a read that did not fill the buffer the kernel gathers for so long, ms: one large read costs less than many small
 * ones, and the processor time goes to the client, which is often on the same machine or the slower one.
 */
const PAUSE_MS = 1;

/** Shared by all connections: what is read is counted or copied before the next read. */
const buffer = Buffer.allocUnsafe(512 * 1024);

/**
 * Takes a connection over from the socket that a server made for it, and reads it into one buffer that is used again and
 * again (docs/decisions/0005-uploads-beside-http.md). Node offers that only for sockets that one makes oneself. Null
 * where this version of Node does not let go of the handle: the socket is then as it was.
 */
export function takeOver(socket: Socket, onBytes: (bytes: Buffer) => void): Socket | null {
  const from = socket as ServerSocket;
  const handle = from._handle;
  if (handle === undefined || handle === null) return null;
  socket.pause();
  from._handle = null;
  socket.removeAllListeners();
  const options = {
    handle,
    onread: {
      buffer,
      callback: (bytes: number) => {
        onBytes(buffer.subarray(0, bytes));
        if (bytes === buffer.length) return true;
        setTimeout(() => raw.resume(), PAUSE_MS);
        return false;
      },
    },
  };
  const raw = new Socket(options as ConstructorParameters<typeof Socket>[0]);
  raw.setNoDelay(true);
  return raw;
}
