import { z } from 'zod';
import { CONTRACTS, FILE_CONTRACTS } from '../../contract';
import type { ActContract, ViewContract } from '../../contract/act';
import type { FileContract } from '../../contract/files';
import { API } from '../../core/acts/api';
import { PROBLEMS, PROBLEM_MEANS, type ProblemCode } from '../../core/acts/problem';

type Json = Record<string, unknown>;

/** A schema as JSON Schema 2020-12, which is what OpenAPI 3.1 speaks. */
function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Json {
	const { $schema: _, ...rest } = z.toJSONSchema(schema, {
		io,
		unrepresentable: 'any',
		target: 'draft-2020-12'
	}) as Json;
	return rest;
}

const inPath = (path: string) => [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);

interface Fields {
	properties: Record<string, Json>;
	required: string[];
}
function fieldsOf(input: z.ZodObject): Fields {
	const { properties = {}, required = [] } = schemaOf(input, 'input');
	return { properties: properties as Record<string, Json>, required: required as string[] };
}

/** What stands in the path, and what may stand in the query. A list stands there once for each of its members. */
function parametersOf(path: string, { properties, required }: Fields, query: string[]): Json[] {
	return [
		...inPath(path).map((name) => ({
			name,
			in: 'path',
			required: true,
			schema: properties[name] ?? { type: 'string' }
		})),
		...query.map((name) => ({
			name,
			in: 'query',
			required: required.includes(name),
			schema: properties[name]
		}))
	];
}

/** Which problems an operation can answer with, by its place and who may: each under its status, with its codes. */
function problemsOf(codes: readonly ProblemCode[]): Json {
	const statuses = [...new Set(codes.map((code) => PROBLEMS[code]))].sort();
	return Object.fromEntries(
		statuses.map((status) => {
			const these = codes.filter((code) => PROBLEMS[code] === status);
			return [
				String(status),
				{
					description: these.map((code) => PROBLEM_MEANS[code]).join(' '),
					content: {
						'application/problem+json': {
							schema: {
								allOf: [{ $ref: '#/components/schemas/Problem' }, { properties: { code: { enum: these } } }]
							}
						}
					}
				}
			];
		})
	);
}

const ANYWHERE: ProblemCode[] = ['invalid', 'busy', 'too-many'];

function codesOf(target: ActContract | ViewContract): ProblemCode[] {
	const isAct = 'method' in target;
	const kind = target.at.kind === 'document' ? 'place' : target.at.kind;
	return [
		...ANYWHERE,
		...(isAct ? (['conflict', 'full', 'too-large', 'wrong-origin'] as const) : []),
		...(kind === 'open' ? [] : (['not-found'] as const)),
		...(kind === 'place' || kind === 'project' || kind === 'release' || kind === 'self'
			? (['needs-sign-in', 'needs-level'] as const)
			: []),
		...(kind === 'pass' || kind === 'place-pass' || kind === 'any-pass' ? (['needs-proof'] as const) : []),
		...(isAct && kind === 'place' ? (['in-hand', 'frozen', 'stale-base'] as const) : [])
	];
}

const needsSignIn = (target: ActContract | ViewContract) =>
	['place', 'document', 'project', 'release', 'self'].includes(target.at.kind);

/** How far somebody has to be let in, in a sentence for whoever reads the description. */
function whoMay({ at }: ActContract | ViewContract): string {
	switch (at.kind) {
		case 'place':
		case 'document':
			return `For whoever has at least the level “${at.level}” at the place.`;
		case 'project':
			return at.who === 'controller' ? 'For document controllers.' : 'For members of the project.';
		case 'release':
			return {
				route: 'For those on the route of the release.',
				controller: 'For document controllers.',
				approver: 'For those whom the route of the release names.'
			}[at.who];
		case 'self':
			return 'For everybody who is signed in, about themselves.';
		case 'open':
			return 'For everybody.';
		default:
			return 'For whoever holds the link.';
	}
}

function operation(target: ActContract | ViewContract): Json {
	const fields = fieldsOf(target.input);
	const isAct = 'method' in target;
	const rest = Object.keys(fields.properties).filter((name) => !inPath(target.path).includes(name));
	const required = rest.filter((name) => fields.required.includes(name));
	return {
		operationId: target.name,
		summary: target.summary,
		description: whoMay(target),
		parameters: parametersOf(target.path, fields, isAct ? [] : rest),
		...(isAct && rest.length
			? {
					requestBody: {
						required: required.length > 0,
						content: {
							'application/json': {
								schema: {
									type: 'object',
									properties: Object.fromEntries(rest.map((name) => [name, fields.properties[name]])),
									...(required.length ? { required } : {}),
									additionalProperties: false
								}
							}
						}
					}
				}
			: {}),
		...(needsSignIn(target) ? {} : { security: [] }),
		responses: {
			'200': {
				description: 'Done',
				content: { 'application/json': { schema: schemaOf(target.output, 'output') } }
			},
			...problemsOf(codesOf(target))
		}
	};
}

const BYTES = { type: 'string', format: 'binary' };
const bodies = (types: readonly string[]) =>
	Object.fromEntries(
		types.map((type) => [
			type === '*' ? 'application/octet-stream' : type,
			{ schema: type === 'application/json' ? { type: 'object' } : BYTES }
		])
	);

function fileOperation(target: FileContract): Json {
	const fields = fieldsOf(target.input);
	const rest = Object.keys(fields.properties).filter((name) => !inPath(target.path).includes(name));
	return {
		operationId: target.name,
		summary: target.summary,
		parameters: parametersOf(target.path, fields, rest),
		...(target.takes ? { requestBody: { required: true, content: bodies(target.takes) } } : {}),
		responses: {
			[target.answers.length ? '200' : '2XX']: {
				description: target.answers.length ? 'The bytes, or the stream' : 'Done',
				...(target.answers.length ? { content: bodies(target.answers) } : {})
			},
			...problemsOf([...ANYWHERE, 'not-found', 'needs-sign-in', 'needs-level', 'too-large', 'full'])
		}
	};
}

/** The OpenAPI 3.1 description of every act and view, and of every address of bytes and streams. */
export function openApi(origin: string): Json {
	const paths: Record<string, Json> = {};
	const add = (path: string, method: string, value: Json) => {
		paths[path] = { ...paths[path], [method]: value };
	};
	for (const one of CONTRACTS)
		add(one.path, ('method' in one ? one.method : 'GET').toLowerCase(), operation(one));
	for (const one of FILE_CONTRACTS) add(one.path, one.method.toLowerCase(), fileOperation(one));
	return {
		openapi: '3.1.0',
		info: {
			title: 'Cupboard',
			version: '1',
			description:
				'Everything the pages of Cupboard do goes through these acts and views. What several edit at once is a room: a websocket under /live/rooms that speaks the protocol of Yjs; liveRoom and markRoom tell its name. A question that is too long for an address is asked by POST to the same path, with its parameters as a JSON object and the header X-HTTP-Method-Override: GET.'
		},
		servers: [{ url: `${origin}${API}` }],
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
						type: { type: 'string', description: 'The page that describes the code' },
						title: { type: 'string' },
						status: { type: 'integer' },
						code: { type: 'string', enum: Object.keys(PROBLEMS) },
						detail: { type: 'string', description: 'A sentence for people' },
						field: { type: 'string', description: 'The field that does not fit' },
						faults: {
							type: 'array',
							items: {
								type: 'object',
								required: ['field', 'sentence'],
								properties: { field: { type: 'string' }, sentence: { type: 'string' } }
							}
						}
					},
					example: {
						type: `${API}/problems/in-hand`,
						title: 'in-hand',
						status: 409,
						code: 'in-hand',
						detail: 'Oke Lindvar has this in hand since 09:12.'
					}
				}
			}
		}
	};
}
