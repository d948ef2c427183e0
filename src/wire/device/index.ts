/** What the page on a device needs at run time of the wire: without the schemas, which would triple its weight. */

/** Where a device stands by: a WebSocket at the console. */
export const STANDING_PATH = '/api/v1/standing-by';

/** A device that waits for its turn asks again so often, ms. */
export const ASK_AGAIN_MS = 1000;
