export { serveChannel } from '../browser/channel-probing';
