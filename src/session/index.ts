export { askForRun, HOLD_MS, type Asked } from './ask-for-run';
export { replyOf, type Post, type Refusal, type Reply } from './console-link';
export { deliver, deliverLeft, handInOnce, type HandInResult } from './hand-in';
export { memoryOutbox, type Outbox, type OutboxEntry } from './outbox';
export { RunSession, SESSION_FAULTS, type Measure, type SessionState } from './run-session';
export { sleep } from './sleep';
