export const AGENT_FILE = 'bent-straw-agent.mjs';

/** The line by which a machine fetches the agent from a console. */
export const fetchLineOf = (origin: string) => `curl -fo ${AGENT_FILE} ${origin}/agent.mjs`;
