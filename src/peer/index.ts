export { createFrontDoor, type FrontDoorOptions } from './front/front-door';
export { ChannelHost } from './udp/channel-host';
export { StampReflector } from './udp/stamp-reflector';
export { loggedPath, type OnPeerEvent, type PeerEvent, type RequestEvent } from './peer-events';
export { Peer, type PeerOptions } from './http/peer';
export { readPracticeDocument, type PracticeDocument, type PracticeLineConfig } from './practice/practice-config';
export { startPracticeLine, type PracticeLine } from './practice/practice-line';
