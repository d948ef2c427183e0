import { spawn } from 'node:child_process';
import type { HandInAnswer } from '@/wire';
import { childOfTool } from '../end-together';

/** A run of the agent as it ended: its answer, or what kept it from one. */
export interface AgentRun {
  readonly exit: number | null;
  readonly answer: HandInAnswer | null;
  readonly said: string;
}

/** One quick run of the real agent, as a person would start it; `state`: where it keeps what was not handed in. */
export async function runAgent(address: string, name: string, state: string): Promise<AgentRun> {
  const args = ['dist/agent-cli.js', 'run', address, '--profile', 'quick', '--name', name, '--json'];
  const child = childOfTool(spawn(process.execPath, args, { env: { ...process.env, XDG_STATE_HOME: state } }));
  let [out, said] = ['', ''];
  child.stdout?.on('data', (part: Buffer) => (out += part.toString()));
  child.stderr?.on('data', (part: Buffer) => (said += part.toString()));
  const exit = await new Promise<number | null>((resolve) => child.once('close', resolve));
  const answer = out.trim() === '' ? null : (JSON.parse(out) as HandInAnswer);
  return { exit, answer, said: said.trim() };
}
