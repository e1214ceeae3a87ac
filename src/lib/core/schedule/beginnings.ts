import { columnSchema, type ColumnFields } from './column';

const column = (name: string, more: Partial<ColumnFields> = {}) => columnSchema.parse({ name, ...more });

/** Schedules that projects often begin, with columns that fit; everything can be changed afterwards. */
export const BEGINNINGS: readonly { name: string; columns: ColumnFields[] }[] = [
	{
		name: 'Empty',
		columns: [column('Mark', { width: 120 }), column('What', { width: 260 }), column('Note', { width: 260 })]
	},
	{
		name: 'Door list',
		columns: [
			column('Door', { form: 'D-###', required: true, unique: true, width: 90 }),
			column('Room', { width: 180 }),
			column('Width', { kind: 'number', unit: 'mm', least: 500, most: 6_000, width: 100 }),
			column('Height', { kind: 'number', unit: 'mm', least: 1_800, most: 6_000, width: 100 }),
			column('Leaf area', {
				kind: 'formula',
				formula: 'ROUND([Width] * [Height] / 1000000, 2)',
				unit: 'm²',
				total: 'sum',
				width: 110
			}),
			column('Fire', { kind: 'choice', choices: ['none', 'EI 30', 'EI 60', 'EI 90'], width: 100 }),
			column('Ordered', { kind: 'date', width: 110 }),
			column('Drawing', { kind: 'document', width: 200 }),
			column('Note', { width: 220 })
		]
	},
	{
		name: 'Pile schedule',
		columns: [
			column('Pile', { form: 'P-##*', required: true, unique: true, width: 90 }),
			column('Easting', { kind: 'number', unit: 'm', width: 120 }),
			column('Northing', { kind: 'number', unit: 'm', width: 120 }),
			column('Cut-off level', { kind: 'number', unit: 'm', width: 120 }),
			column('Toe level', { kind: 'number', unit: 'm', width: 110 }),
			column('Length', {
				kind: 'formula',
				formula: 'ROUND([Cut-off level] - [Toe level], 2)',
				unit: 'm',
				total: 'sum',
				width: 110
			}),
			column('Driven', { kind: 'date', width: 110 }),
			column('State', { kind: 'choice', choices: ['to drive', 'driven', 'tested', 'set aside'], width: 110 }),
			column('Note', { width: 220 })
		]
	},
	{
		name: 'Drawing list',
		columns: [
			column('Drawing', { kind: 'document', required: true, unique: true, width: 210 }),
			column('Title', { width: 280 }),
			column('Revision', { form: 'A##*', width: 90 }),
			column('Planned', { kind: 'date', width: 110 }),
			column('By', { width: 120 }),
			column('Note', { width: 220 })
		]
	}
];
