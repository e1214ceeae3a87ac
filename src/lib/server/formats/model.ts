/** Building models (IFC, ISO 16739): what they hold, as lists. Runs in the format workers. */
import { readFile } from 'node:fs/promises';
import {
	IfcAPI,
	IFCBUILDING,
	IFCBUILDINGSTOREY,
	IFCPROJECT,
	IFCRELCONTAINEDINSPATIALSTRUCTURE,
	IFCSITE
} from 'web-ifc';
import type { ShownTable } from '../../core/shown';

/** Models of more bytes are kept and downloaded, not read. */
export const MOST_MODEL_BYTES = 400_000_000;

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
export async function modelTables(path: string): Promise<ShownTable[]> {
	const api = new IfcAPI();
	await api.Init();
	const model = api.OpenModel(await readFile(path));
	if (model < 0) throw new Error('The model is damaged.');
	try {
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
	} finally {
		api.CloseModel(model);
	}
}
