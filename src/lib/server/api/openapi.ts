import { z } from 'zod';
import { PROBLEMS } from '../../core/acts/problem';
import type { Act, View } from '../platform/runner/act';
import { ACTS } from './acts';
import { VIEWS } from './views';

type Json = Record<string, unknown>;

function schemaOf(input: z.ZodObject): { properties: Record<string, Json>; required: string[] } {
	const schema = z.toJSONSchema(input, {
		io: 'input',
		unrepresentable: 'any',
		target: 'draft-2020-12'
	}) as Json;
	return {
		properties: (schema.properties ?? {}) as Record<string, Json>,
		required: (schema.required ?? []) as string[]
	};
}

function operation(target: Act | View, isAct: boolean): Json {
	const { properties, required } = schemaOf(target.input);
	const inPath = [...target.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
	const rest = Object.keys(properties).filter((name) => !inPath.includes(name));
	const parameters = [
		...inPath.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
		...(isAct
			? []
			: rest.map((name) => ({
					name,
					in: 'query',
					required: required.includes(name),
					schema: properties[name]
				})))
	];
	const body = {
		content: {
			'application/json': {
				schema: {
					type: 'object',
					properties: Object.fromEntries(rest.map((name) => [name, properties[name]])),
					required: rest.filter((name) => required.includes(name))
				}
			}
		}
	};
	const open = target.at.kind === 'open' || target.at.kind === 'pass';
	return {
		operationId: target.name,
		summary: target.summary,
		parameters,
		...(isAct && rest.length ? { requestBody: body } : {}),
		...(open ? { security: [] } : {}),
		responses: {
			'200': { description: 'Done', content: { 'application/json': { schema: { type: 'object' } } } },
			default: {
				description: 'A problem',
				content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } }
			}
		}
	};
}

/** The OpenAPI 3.1 description of every act and view. */
export function openApi(origin: string): Json {
	const paths: Record<string, Json> = {};
	const add = (path: string, method: string, value: Json) => {
		paths[path] = { ...paths[path], [method]: value };
	};
	for (const act of ACTS) add(act.path, act.method.toLowerCase(), operation(act, true));
	for (const view of VIEWS) add(view.path, 'get', operation(view, false));
	add('/uploads', 'post', {
		operationId: 'sendFile',
		summary: 'Send the bytes of one file; acts then refer to the upload it answers with',
		parameters: [
			{ name: 'name', in: 'query', required: true, schema: { type: 'string' } },
			{ name: 'project', in: 'query', required: true, schema: { type: 'string' } }
		],
		requestBody: {
			required: true,
			content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
		},
		responses: {
			'200': { description: 'Received', content: { 'application/json': { schema: { type: 'object' } } } }
		}
	});
	add('/documents/{document}/versions/{label}/file', 'get', {
		operationId: 'fileOfVersion',
		summary: 'The bytes of a version: to show it, or with ?download as a file',
		parameters: [
			{ name: 'document', in: 'path', required: true, schema: { type: 'string' } },
			{ name: 'label', in: 'path', required: true, schema: { type: 'string' } },
			{ name: 'download', in: 'query', required: false, schema: { type: 'string' } }
		],
		responses: { '200': { description: 'The bytes' } }
	});
	return {
		openapi: '3.1.0',
		info: {
			title: 'Cupboard',
			version: '1',
			description: 'Everything the pages of Cupboard do goes through these acts and views.'
		},
		servers: [{ url: `${origin}/api/v1` }],
		security: [{ token: [] }, { session: [] }],
		paths,
		components: {
			securitySchemes: {
				token: { type: 'http', scheme: 'bearer', description: 'A personal API token from your own page' },
				session: { type: 'apiKey', in: 'cookie', name: 'cupboard.session_token' }
			},
			schemas: {
				Problem: {
					type: 'object',
					description: 'RFC 9457 problem document',
					required: ['type', 'title', 'status', 'code', 'detail'],
					properties: {
						type: { type: 'string' },
						title: { type: 'string' },
						status: { type: 'integer' },
						code: { type: 'string', enum: Object.keys(PROBLEMS) },
						detail: { type: 'string' }
					}
				}
			}
		}
	};
}
