export { openApiDocument } from './openapi-document';
