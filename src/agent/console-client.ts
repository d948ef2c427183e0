import {
  handInAnswerSchema,
  runAnswerSchema,
  type HandIn,
  type HandInAnswer,
  type RunGrant,
  type RunWaiting,
  type StartRun,
} from '@/wire';
import { ASK_AGAIN_MS } from '@/wire/device';
import { AgentFault } from './agent-faults';
import type { DeviceMemory } from './known-devices';

const PATIENCE_MS = 10_000;
const HAND_IN_PATIENCE_MS = 60_000;
const RETRY_MS = 3000;

/** The console as the agent uses it: the same API as the page on a device. */
export class ConsoleClient {
  constructor(
    readonly origin: string,
    private readonly code: string | null,
    /** What a browser of this device would send along; null for a machine that comes by a code. */
    private readonly cookie: string | null = null,
  ) {}

  /** From an address as the board shows it: `http://192.0.2.20:4870/j/KMT4QX`. Throws AgentFault. */
  static fromAddress(address: string): ConsoleClient {
    let url: URL;
    try {
      url = new URL(address);
    } catch {
      throw new AgentFault('address-malformed', { address });
    }
    if (url.protocol !== 'http:' && url.protocol !== 'https:') throw new AgentFault('address-malformed', { address });
    return new ConsoleClient(url.origin, /^\/j\/([^/]+)$/.exec(url.pathname)?.[1] ?? null);
  }

  async #post(path: string, body: unknown): Promise<unknown> {
    const response = await fetch(new URL(path, this.origin), {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', ...(this.cookie !== null && { Cookie: this.cookie }) },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE_MS),
    }).catch(() => {
      throw new AgentFault('console-unreachable', { origin: this.origin });
    });
    const answer = (await response.json().catch(() => null)) as { code?: string; detail?: string } | null;
    if (response.ok) return answer;
    throw new AgentFault('console-refused', {
      status: response.status,
      detail: answer?.detail ?? 'The console refused without a reason.',
      refusal: answer?.code ?? '',
    });
  }

  /**
   * Asks for a run as the device that this machine is known as under that name, or as a new one. Waits for its turn as
   * long as it takes; `onWaiting` hears each time why.
   */
  async startRun(
    order: Omit<StartRun, 'code' | 'deviceId'>,
    devices: DeviceMemory,
    onWaiting: (waiting: RunWaiting) => void = () => undefined,
    signal: AbortSignal = new AbortController().signal,
  ): Promise<RunGrant> {
    const name = order.deviceName ?? '';
    const ask = (deviceId: string | null) => this.#post('/api/v1/runs', { ...order, deviceId, code: this.code });
    const known = devices.idOf(this.origin, name);
    const answered = await ask(known).catch((error: unknown) => {
      // Removed from the console since: then it is a new one again.
      if (known !== null && error instanceof AgentFault && error.refusal === 'device-unknown') return ask(null);
      throw error;
    });
    const { data: answer } = runAnswerSchema.safeParse(answered);
    if (answer === undefined) throw new AgentFault('console-odd', { origin: this.origin });
    devices.remember(this.origin, name, answer.deviceId);
    if (answer.status === 'granted') return answer;
    onWaiting(answer);
    await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MS));
    if (signal.aborted)
      throw new AgentFault('run-unfinished', { detail: 'It was cancelled while it waited for its turn.' });
    return this.startRun({ ...order, turnId: answer.turnId }, devices, onWaiting, signal);
  }

  async noteAlive({ runId, runKey }: RunGrant): Promise<void> {
    await this.#post(`/api/v1/runs/${runId}/alive`, { runKey }).catch(() => undefined);
  }

  /** Hands a run in; while the console is away it is tried again, for a while. The same run may be handed in twice. */
  async handIn({ runId, runKey }: RunGrant, handIn: HandIn): Promise<HandInAnswer> {
    const untilMs = performance.now() + HAND_IN_PATIENCE_MS;
    const post = async (): Promise<unknown> => {
      try {
        return await this.#post(`/api/v1/runs/${runId}/hand-in`, { runKey, handIn });
      } catch (error) {
        const away = error instanceof AgentFault && error.code === 'console-unreachable';
        if (!away || performance.now() > untilMs) throw error;
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
        return post();
      }
    };
    const answer = handInAnswerSchema.safeParse(await post());
    if (!answer.success) throw new AgentFault('console-odd', { origin: this.origin });
    return answer.data;
  }
}
