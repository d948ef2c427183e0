export { joinAgent, noteChangeSeen, noteHello, noteNeighboursKnown, retireAgent } from './agents';
export { ownAgentOf, type OwnAgent } from './own-agent';
