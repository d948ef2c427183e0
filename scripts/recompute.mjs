import { startProgram } from './start-program.mjs';

await startProgram('recompute-cli.js', []);
