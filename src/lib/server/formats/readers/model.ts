/** Building models (IFC, ISO 16739): what they hold, as lists. Runs in the format workers. */
import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import {
	IfcAPI,
	IFCBUILDING,
	IFCBUILDINGSTOREY,
	IFCPROJECT,
	IFCRELCONTAINEDINSPATIALSTRUCTURE,
	IFCSITE,
	LogLevel
} from 'web-ifc';
import { modelPicture, SIDES, type Body } from '../../../core/model/picture';
import type { ShownTable } from '../../../core/files/shown';
import { KEPT, NOT_SHOWN, type Reader } from './reader';

/** Models of more bytes are kept and downloaded, not read. */
const MOST_MODEL_BYTES = 400_000_000;

export const model: Reader = {
	called: 'file',
	async inspect({ path, size }) {
		if (size > MOST_MODEL_BYTES) return KEPT;
		// What its reader does not understand may be newer than it, and is no fault of the file.
		return modelTables(path).then(
			() => ({}),
			() => KEPT
		);
	},
	async shown({ path, size }) {
		if (size > MOST_MODEL_BYTES) return NOT_SHOWN;
		return { kind: 'table', tables: await modelTables(path), views: [...SIDES] };
	},
	async page({ path }, page, width) {
		const view = await modelView(path, page - 1, Math.min(width, MOST_VIEW_PIXELS));
		return { bytes: await view.webp({ quality: 90, effort: 1 }).toBuffer(), mediaType: 'image/webp' };
	},
	async written({ path, size }) {
		if (size > MOST_MODEL_BYTES) return '';
		return (await modelTables(path)).flatMap((t) => t.rows.map((row) => row.join(' '))).join('\n');
	},
	async preview({ path }, to, across) {
		await (await modelView(path, 0, across)).webp({ quality: 80 }).toFile(to);
	}
};

/** A value of the model as text: names come wrapped, and in a notation of their own that the reader resolves. */
const textOf = (value: unknown): string => {
	const inner = typeof value === 'object' && value !== null && 'value' in value ? value.value : value;
	return inner === null || inner === undefined ? '' : String(inner as string | number);
};

/** IFCWALLSTANDARDCASE as “Wall standard case” cannot be told from capitals; the class is written as the standard does. */
const className = (type: string) => type.replace(/^IFC/i, 'Ifc');

const table = (name: string, rows: string[][]): ShownTable => ({
	name,
	rows,
	shown: null,
	formulas: 0,
	comments: 0,
	cut: false
});

/**
 * What a model holds: what it is of, its storeys with their heights and how much stands on each, and how many elements of
 * each class there are. Throws when it is damaged.
 */
function modelTables(path: string): Promise<ShownTable[]> {
	return withModel(path, (api, model) => {
		const ids = (type: number) => {
			const found = api.GetLineIDsWithType(model, type);
			return Array.from({ length: found.size() }, (_, i) => found.get(i));
		};
		const line = (id: number) => api.GetLine(model, id) as Record<string, unknown>;
		const about: string[][] = [['What', 'Name', 'Description']];
		for (const [what, type] of [
			['Project', IFCPROJECT],
			['Site', IFCSITE],
			['Building', IFCBUILDING]
		] as const)
			for (const id of ids(type)) {
				const { Name, LongName, Description } = line(id);
				about.push([what, textOf(LongName) || textOf(Name), textOf(Description)]);
			}
		about.push(['Schema', api.GetModelSchema(model), '']);
		const standing = new Map<number, number>();
		for (const id of ids(IFCRELCONTAINEDINSPATIALSTRUCTURE)) {
			const { RelatingStructure, RelatedElements } = line(id);
			const storey = Number(textOf(RelatingStructure));
			const elements = Array.isArray(RelatedElements) ? RelatedElements.length : 0;
			standing.set(storey, (standing.get(storey) ?? 0) + elements);
		}
		const storeys = ids(IFCBUILDINGSTOREY)
			.map((id) => ({ id, ...(line(id) as { Name?: unknown; Elevation?: unknown }) }))
			.sort((a, b) => Number(textOf(a.Elevation)) - Number(textOf(b.Elevation)))
			.map(({ id, Name, Elevation }) => [
				textOf(Name),
				String(Math.round(Number(textOf(Elevation)) * 1000) / 1000),
				String(standing.get(id) ?? 0)
			]);
		const places = new Set([IFCSITE, IFCBUILDING, IFCBUILDINGSTOREY]);
		const elements = api
			.GetAllTypesOfModel(model)
			.filter(({ typeID }) => api.IsIfcElement(typeID) && !places.has(typeID))
			.map(({ typeID, typeName }) => [className(typeName), String(ids(typeID).length)])
			.sort((a, b) => Number(b[1]) - Number(a[1]));
		return [
			table('Model', about),
			table('Storeys', [['Storey', 'Height', 'Elements'], ...storeys]),
			table('Elements', [['Class', 'Count'], ...elements])
		];
	});
}

/** Opens a model for as long as something is done with it. Throws when it is damaged. */
async function withModel<T>(path: string, act: (api: IfcAPI, model: number) => T): Promise<T> {
	const api = new IfcAPI();
	await api.Init();
	// What it cannot draw of a model is no news to the server.
	api.SetLogLevel(LogLevel.LOG_LEVEL_OFF);
	const model = api.OpenModel(await readFile(path));
	if (model < 0) throw new Error('The model is damaged.');
	try {
		return act(api, model);
	} finally {
		api.CloseModel(model);
	}
}

/** Most pixels along the longer side of a picture. */
const MOST_VIEW_PIXELS = 2_000;
/** Most triangles of a model that are drawn. */
const MOST_TRIANGLES = 3_000_000;
/** Glass and openings are seen through, and would hide what stands behind them. */
const LEAST_SOLID = 0.5;

/**
 * A picture of a model from one of its sides.
 * @param side which of `SIDES`
 * @param most pixels along the longer side
 * Throws when the model is damaged, or when nothing of it can be seen.
 */
async function modelView(path: string, side: number, most: number): Promise<Sharp> {
	const bodies = await withModel(path, bodiesOf);
	const picture = modelPicture(bodies, side, most);
	if (!picture) throw new Error('Nothing of the model can be seen.');
	const { width, height, pixels } = picture;
	return sharp(pixels, { raw: { width, height, channels: 3 } });
}

function bodiesOf(api: IfcAPI, model: number): Body[] {
	const bodies: Body[] = [];
	let drawn = 0;
	api.StreamAllMeshes(model, ({ geometries }) => {
		for (let i = 0; i < geometries.size() && drawn < MOST_TRIANGLES; i++) {
			const { geometryExpressID, flatTransformation: m, color } = geometries.get(i);
			if (color.w < LEAST_SOLID) continue;
			const geometry = api.GetGeometry(model, geometryExpressID);
			// Six numbers a corner: its place and its normal.
			const given = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
			const triangles = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize()).slice();
			geometry.delete();
			const corners = new Float32Array(given.length / 2);
			for (let v = 0, at = 0; v + 5 < given.length; v += 6, at += 3) {
				const [x, y, z] = [given[v]!, given[v + 1]!, given[v + 2]!];
				const placed = (row: number) => m[row]! * x + m[row + 4]! * y + m[row + 8]! * z + m[row + 12]!;
				// The reader turns models so that y is upward.
				corners[at] = placed(0);
				corners[at + 1] = -placed(2);
				corners[at + 2] = placed(1);
			}
			drawn += triangles.length / 3;
			bodies.push({ corners, triangles, colour: [color.x, color.y, color.z] });
		}
	});
	return bodies;
}
