import { startProgram } from './start-program.mjs';

await startProgram('unit-cli.js', []);
