/** What a query says, by its parameters: one that stands there several times is a list. */
export function queryInput(query: URLSearchParams): Record<string, string | string[]> {
	return Object.fromEntries(
		[...new Set(query.keys())].map((name) => {
			const values = query.getAll(name);
			return [name, values.length > 1 ? values : values[0]!];
		})
	);
}
