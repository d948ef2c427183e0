import { startProgram } from './start-program.mjs';

await startProgram('check-cli.js', []);
