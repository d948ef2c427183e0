import * as z from 'zod';
import { CONSOLE_FAULTS } from '../console-faults';
import { scopeOfOperation, type Operation } from '../operation';
import { OPERATIONS } from '../operations';
import { PROBLEM_MEDIA_TYPE } from '../../fault/fault';

const PROBLEM = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  code: z.string(),
  detail: z.string(),
});

/** JSON Schema 2020-12, as OpenAPI 3.1 takes it. `input`: what may be sent, before defaults are filled in. */
function schemaOf(schema: z.ZodType, io: 'input' | 'output'): object {
  const made = Object.entries(z.toJSONSchema(schema, { io, unrepresentable: 'any' }));
  return Object.fromEntries(made.filter(([key]) => key !== '$schema'));
}

function answersOf({ answers, faults, caller }: Operation): Record<string, object> {
  const documented: Record<string, object> = {};
  for (const [status, answer] of Object.entries(answers)) {
    const media = typeof answer === 'string' ? answer : 'application/json';
    const schema =
      typeof answer === 'string' ? { type: 'string' } : answer === null ? null : schemaOf(answer, 'output');
    documented[status] = { description: 'done', ...(schema === null ? {} : { content: { [media]: { schema } } }) };
  }
  const scoped = caller === 'technician' ? (['token-scope'] as const) : [];
  for (const code of [...faults, ...scoped]) {
    const { status, title } = CONSOLE_FAULTS[code];
    const before = (documented[status] as { description: string } | undefined)?.description;
    documented[status] = {
      description: before === undefined ? `${code}: ${title}` : `${before}; ${code}: ${title}`,
      content: { [PROBLEM_MEDIA_TYPE]: { schema: { $ref: '#/components/schemas/Problem' } } },
    };
  }
  return documented;
}

function parametersOf({ path, query }: Operation): object[] {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    ...{ name, in: 'path', required: true, schema: { type: 'string' } },
  }));
  const inQuery = Object.entries(query?.shape ?? {}).map(([name, schema]) => ({
    ...{ name, in: 'query', required: false, schema: schemaOf(schema as z.ZodType, 'input') },
  }));
  return [...inPath, ...inQuery];
}

function operationOf(operation: Operation): object {
  const { summary, caller, request } = operation;
  const scope = scopeOfOperation(operation);
  const parameters = parametersOf(operation);
  return {
    summary,
    ...(caller === 'technician' && { description: `A token must be allowed to: ${scope}.`, 'x-token-scope': scope }),
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(request === undefined
      ? {}
      : { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(request, 'input') } } } }),
    responses: answersOf(operation),
    security: caller === 'technician' ? [{ token: [] }, { signIn: [] }] : [{}, { device: [] }, { token: [] }],
  };
}

/** The API as an OpenAPI 3.1 document, made from the schemas by which requests are really checked. */
export function openApiDocument(version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const operation of OPERATIONS)
    paths[operation.path] = { ...paths[operation.path], [operation.method]: operationOf(operation) };
  return {
    openapi: '3.1.0',
    info: {
      title: 'Bent Straw',
      version,
      description:
        'Rates are bits per second, times ms, moments ISO 8601 in UTC. What was not measured is null, never 0.',
    },
    paths,
    components: {
      schemas: { Problem: schemaOf(PROBLEM, 'output') },
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer' },
        signIn: { type: 'apiKey', in: 'cookie', name: 'bent-straw-sign-in' },
        device: { type: 'apiKey', in: 'cookie', name: 'bent-straw-device' },
      },
    },
  };
}
