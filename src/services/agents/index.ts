export { joinAgent, noteChangeSeen, noteHello, noteNeighboursKnown, retireAgent } from './agents';
