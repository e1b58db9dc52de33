import { z } from 'zod';
import { API_ROOT, api } from './api.ts';
import type { AnyEndpoint } from './endpoint.ts';
import { STATUS_OF_REFUSAL } from './refusal.ts';

type JsonObject = Record<string, unknown>;

const PROBLEM: JsonObject = {
  type: 'object',
  required: ['type', 'title', 'status', 'code'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    code: { type: 'string', enum: Object.keys(STATUS_OF_REFUSAL) },
  },
};

/** The OpenAPI 3.1 document of {@link api}, for programs that call Caderno. */
export function openApiDocument(version: string): JsonObject {
  const paths: Record<string, JsonObject> = {};
  for (const [name, endpoint] of Object.entries<AnyEndpoint>(api)) {
    const path = endpoint.path.replaceAll(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [endpoint.method.toLowerCase()]: operation(name, endpoint) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Caderno', version },
    servers: [{ url: API_ROOT }],
    paths,
    components: {
      schemas: { Problem: PROBLEM },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'caderno_session' } },
    },
  };
}

function operation(name: string, endpoint: AnyEndpoint): JsonObject {
  const body = schemaOf(endpoint.body, 'input');
  return {
    operationId: name,
    summary: endpoint.summary,
    ...(endpoint.access === 'anyone' ? {} : { security: [{ session: [] }] }),
    parameters: [...parameters(endpoint.params, 'path'), ...parameters(endpoint.query, 'query')],
    ...(body === null ? {} : { requestBody: { required: true, content: { 'application/json': { schema: body } } } }),
    responses: {
      '200': { description: 'Done', content: { 'application/json': { schema: schemaOf(endpoint.response, 'input') ?? {} } } },
      default: { description: 'Refused', content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } } },
    },
  };
}

function parameters(schema: z.ZodType, place: 'path' | 'query'): JsonObject[] {
  const object = schemaOf(schema, 'input');
  const properties = (object?.properties ?? {}) as Record<string, JsonObject>;
  const required = (object?.required ?? []) as string[];
  return Object.entries(properties).map(([name, property]) => ({ name, in: place, required: place === 'path' || required.includes(name), schema: property }));
}

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): JsonObject | null {
  if (schema instanceof z.ZodUndefined) return null;
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return rest;
}
