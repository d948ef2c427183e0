import { startProgram } from './start-program.mjs';

await startProgram('launch.js', ['start']);
