import { openApiDocument } from '@/wire/console/openapi';

/** Counts up when an operation changes so that a script could notice. */
const API_VERSION = '1.0.0';

/** The API, described by the schemas that it checks with. */
export function GET(): Response {
  return Response.json(openApiDocument(API_VERSION));
}
