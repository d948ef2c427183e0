import { randomBytes } from 'node:crypto';
import type { NameAnswer, NamesAsked, NamesFound } from '@/core';
import { thisMachine } from '../machine/this-machine';
import { askResolver } from './ask-resolver';
import { LookFault } from './look-fault';

const ROUNDS = 3;

async function resolversOf({ resolvers }: NamesAsked): Promise<NamesFound['resolvers']> {
  const [own, route] = [await thisMachine.resolvers(), await thisMachine.gateway()];
  const all = [
    ...own.map((resolver) => ({ resolver, role: 'own' as const })),
    ...(route === null ? [] : [{ resolver: route.address, role: 'gateway' as const }]),
    ...resolvers.map((resolver) => ({ resolver, role: 'typed' as const })),
  ];
  return all.filter(({ resolver }, place) => all.findIndex((each) => each.resolver === resolver) === place);
}

/** A label that nobody has asked for before. */
const freshLabel = () => `x${randomBytes(6).toString('hex')}`;

async function answerOf(
  resolver: string,
  asked: string,
  facts: Pick<NameAnswer, 'name' | 'kind' | 'round'>,
): Promise<NameAnswer> {
  try {
    const { ms, code, addresses, authentic } = await askResolver(resolver, asked);
    return { resolver, ...facts, ms, code, addresses, authentic, trouble: null };
  } catch (error) {
    const trouble = error instanceof Error ? error.message : String(error);
    return { resolver, ...facts, ms: null, code: null, addresses: [], authentic: false, trouble };
  }
}

/** A fresh label under the name; then the name itself twice, of which the second is counted: it can be in the memory by then. */
async function ask(resolver: string, name: string, round: number): Promise<NameAnswer[]> {
  const fresh = await answerOf(resolver, `${freshLabel()}.${name}`, { name, kind: 'fresh', round });
  // One that is not there is not waited for twice.
  if (fresh.ms === null) return [fresh];
  await answerOf(resolver, name, { name, kind: 'again', round });
  return [fresh, await answerOf(resolver, name, { name, kind: 'again', round })];
}

/** Asks all resolvers for all names, three times in turn, each time beginning with another one. Throws LookFault. */
export async function lookAtNames(asked: NamesAsked, signal: AbortSignal): Promise<NamesFound> {
  const resolvers = await resolversOf(asked);
  const answers: NameAnswer[] = [];
  const silent = new Map<string, number>();
  for (let round = 0; round < ROUNDS; round += 1)
    for (const [place, name] of asked.names.entries())
      for (let step = 0; step < resolvers.length; step += 1) {
        if (signal.aborted) throw new LookFault('look-stopped');
        const { resolver } = resolvers[(step + place + round) % resolvers.length]!;
        // Three times silent: it is not there, and everybody else would wait for it.
        if ((silent.get(resolver) ?? 0) >= ROUNDS) continue;
        const got = await ask(resolver, name, round);
        answers.push(...got);
        silent.set(resolver, got[0]!.ms === null ? (silent.get(resolver) ?? 0) + 1 : 0);
      }
  return { what: 'names', resolvers, answers };
}
