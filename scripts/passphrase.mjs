import { startProgram } from './start-program.mjs';

await startProgram('passphrase-cli.js', []);
