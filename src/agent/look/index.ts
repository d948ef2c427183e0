export { answerLook, type TakeLook } from './answer-look';
export { doLook } from './do-look';
export { LOOK_FAULTS, LookFault } from './look-fault';
