import type { Problem, RunAnswer, RunGrant, RunWaiting, StartRun } from '@/wire';
import { ASK_AGAIN_MS } from '@/wire/device';

export type Refusal = Pick<Problem, 'code' | 'detail'>;

export type Asked =
  | { readonly status: 'granted'; readonly grant: RunGrant }
  | { readonly status: 'refused'; readonly problem: Refusal }
  | { readonly status: 'given-up' };

const AWAY: Refusal = {
  code: 'console-unreachable',
  detail: 'The console is not answering. Check that it runs, then start again.',
};

async function ask(order: StartRun): Promise<RunAnswer | ({ readonly status: 'refused' } & Refusal)> {
  try {
    const response = await fetch('/api/v1/runs', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(order),
    });
    if (response.ok) return (await response.json()) as RunAnswer;
    return { ...((await response.json()) as Problem), status: 'refused' };
  } catch {
    return { status: 'refused', ...AWAY };
  }
}

/** Asks for a run, and while the line is taken again and again, until it is this device's turn or it is given up. */
export async function askForRun(
  order: StartRun,
  onWaiting: (waiting: RunWaiting) => void,
  isGivenUp: () => boolean,
): Promise<Asked> {
  for (let wanted = order; ;) {
    const answer = await ask(wanted);
    if (answer.status === 'granted') return { status: 'granted', grant: answer };
    if (answer.status === 'refused') return { status: 'refused', problem: answer };
    onWaiting(answer);
    await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MS));
    if (isGivenUp()) return { status: 'given-up' };
    wanted = { ...wanted, deviceId: answer.deviceId, deviceName: null, turnId: answer.turnId };
  }
}
