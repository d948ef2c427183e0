import { startProgram } from './start-program.mjs';

await startProgram('restore-cli.js', []);
