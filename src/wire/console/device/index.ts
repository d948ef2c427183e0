/** What the page on a device needs at run time of the wire: without the schemas, which would triple its weight. */

/** Where a device stands by: a WebSocket at the console. */
export const STANDING_PATH = '/api/v1/standing-by';
