/** Does something with each of many, so many side by side; ends when all are done, or with the first that fails. */
export async function atOnce<T>(
	many: readonly T[],
	most: number,
	act: (one: T) => Promise<void>
): Promise<void> {
	const left = many.values();
	const next = async () => {
		for (const one of left) await act(one);
	};
	await Promise.all(Array.from({ length: most }, next));
}
