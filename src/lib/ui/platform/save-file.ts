/** Has the browser keep what was made here as a file. */
export function saveFile(content: BlobPart | Uint8Array, name: string, type: string): void {
	const link = document.createElement('a');
	link.href = URL.createObjectURL(new Blob([content as BlobPart], { type }));
	link.download = name;
	link.click();
	// Not at once: the browser may not have begun to read it.
	setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
