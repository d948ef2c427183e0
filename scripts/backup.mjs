import { startProgram } from './start-program.mjs';

await startProgram('backup-cli.js', []);
