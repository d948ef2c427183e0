import { startProgram } from './start-program.mjs';

await startProgram('peer-cli.js', []);
