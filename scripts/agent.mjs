import { startProgram } from './start-program.mjs';

await startProgram('agent-cli.js', []);
