import { readFile } from 'node:fs/promises';
import { answering } from '@/app/api/v1/answer';
import { theConsole } from '@/services';

/** The agent as one file. It holds nothing of this console: whoever fetches it still needs a code. */
export const GET = answering(
  async (): Promise<Response> =>
    new Response(new Uint8Array(await readFile(theConsole().agentFile)), {
      headers: {
        'Content-Type': 'text/javascript; charset=utf-8',
        'Content-Disposition': 'attachment; filename="bent-straw-agent.mjs"',
        'Cache-Control': 'no-cache',
      },
    }),
);
