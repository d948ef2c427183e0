import { lookAtNames } from '@/agent/look/names';

/** Resolvers as an agent looks at them, the machine's own and those given; what was found goes to standard output as JSON. */
export async function runNamesClient(names: readonly string[], resolvers: readonly string[]): Promise<void> {
  const asked = { what: 'names', names: [...names], resolvers: [...resolvers] } as const;
  const found = await lookAtNames(asked, new AbortController().signal);
  process.stdout.write(JSON.stringify(found), () => process.exit(0));
}
