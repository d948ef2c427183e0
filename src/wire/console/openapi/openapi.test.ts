import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { OFFICE_HANDLERS } from '@/app/api/v1/[...path]/office-handlers';
import { OFFICE_OPERATIONS, OPERATIONS, type OfficeOperationName } from '@/wire';
import { openApiDocument } from '.';

interface Document {
  readonly paths: Readonly<Record<string, Readonly<Record<string, OperationObject>>>>;
}
interface OperationObject {
  readonly parameters?: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: object }>> };
  readonly responses: Readonly<Record<string, { readonly description: string }>>;
}

const ROOT = 'src/app/api/v1';

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];

/** `get /api/v1/runs` for each method that a route file of the program exports; the one with a table of its own aside. */
async function routesOf(): Promise<string[]> {
  const files = readdirSync(ROOT, { recursive: true })
    .map((file) => join(ROOT, String(file)))
    .filter((file) => file.endsWith('/route.ts') && !file.includes('[...path]'));
  const found = files.map(async (file) => {
    const path = `/${file.slice('src/app/'.length, -'/route.ts'.length).replace(/\[(\w+)\]/g, '{$1}')}`;
    const handlers = (await import(join(process.cwd(), file))) as Readonly<Record<string, unknown>>;
    return METHODS.filter((method) => method in handlers).map((method) => `${method.toLowerCase()} ${path}`);
  });
  return (await Promise.all(found)).flat();
}

describe('the OpenAPI document', () => {
  const document = openApiDocument('1.2.3') as Document;

  it('lists every route of the program, and none that is not there', async () => {
    const handled = Object.keys(OFFICE_HANDLERS).map((name) => {
      const { method, path } = OFFICE_OPERATIONS[name as OfficeOperationName];
      return `${method} ${path}`;
    });
    expect(OPERATIONS.map(({ method, path }) => `${method} ${path}`).sort()).toEqual(
      [...(await routesOf()), ...handled].sort(),
    );
  });

  it('gives each operation what it takes and what it answers, faults with their codes', () => {
    const ask = document.paths['/api/v1/runs']!['post']!;
    expect(ask.requestBody!.content['application/json']!.schema).toMatchObject({
      type: 'object',
      properties: { reach: { enum: ['local', 'internet', 'tunnel', 'between'] } },
    });
    expect(ask.responses['409']!.description).toContain('device-busy');
    expect(ask.responses['429']!.description).toContain('too-many-tries');
  });

  it('asks only for what has no default', () => {
    const schema = document.paths['/api/v1/runs']!['post']!.requestBody!.content['application/json']!.schema as {
      readonly required: readonly string[];
    };
    expect(schema.required).toContain('reach');
    expect(schema.required).not.toContain('turnId');
    expect(schema.required).not.toContain('profile');
  });

  it('names each parameter of a path', () => {
    for (const [path, methods] of Object.entries(document.paths))
      for (const operation of Object.values(methods))
        expect(
          (operation.parameters ?? []).filter((each) => each.in === 'path').map(({ name }) => `{${name}}`),
        ).toEqual(path.match(/\{\w+\}/g) ?? []);
  });
});
