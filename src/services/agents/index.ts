export { joinAgent, noteChangeSeen, noteHello, retireAgent } from './agents';
