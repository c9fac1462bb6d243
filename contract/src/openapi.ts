import { z } from 'zod'
import { endpoints } from './endpoints'
import { problemSchema } from './schemas'

const json = (schema: z.ZodType, io: 'input' | 'output') => ({
  'application/json': { schema: z.toJSONSchema(schema, { io, unrepresentable: 'any' }) },
})

/** The OpenAPI 3.1 document of the API, made from the same schemas that parse its requests. */
export function openApi(version: string) {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [operationId, endpoint] of Object.entries(endpoints)) {
    const names = [...endpoint.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1])
    const versioned = 'versioned' in endpoint
    const file = 'file' in endpoint
    const takesFile = file && endpoint.method === 'put'
    const parameters: unknown[] = names.map((name) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }))
    if ('query' in endpoint)
      for (const [name, schema] of Object.entries(endpoint.query.shape))
        parameters.push({ name, in: 'query', required: false, schema: z.toJSONSchema(schema, { io: 'output' }) })
    if (versioned)
      for (const name of endpoint.method === 'put' ? ['If-Match', 'If-None-Match'] : ['If-Match'])
        parameters.push({ name, in: 'header', required: false, schema: { type: 'string' } })
    const problem = {
      description: 'Problem details',
      content: { 'application/problem+json': { schema: z.toJSONSchema(problemSchema) } },
    }
    ;(paths[endpoint.path] ??= {})[endpoint.method] = {
      operationId,
      summary: endpoint.summary,
      parameters,
      ...(takesFile && {
        requestBody: {
          required: true,
          content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
        },
      }),
      ...('request' in endpoint && { requestBody: { required: true, content: json(endpoint.request, 'input') } }),
      responses: {
        ...('response' in endpoint
          ? {
              200: {
                description: 'Done',
                ...(versioned && { headers: { ETag: { schema: { type: 'string' } } } }),
                content: json(endpoint.response, 'output'),
              },
            }
          : file
            ? { 200: { description: 'The file', content: { '*/*': { schema: { type: 'string', format: 'binary' } } } } }
            : { 204: { description: 'Done' } }),
        default: problem,
      },
    }
  }
  return { openapi: '3.1.0', info: { title: 'Nobbet', version }, paths }
}
