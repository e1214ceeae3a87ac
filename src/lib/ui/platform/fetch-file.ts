/** Has the browser fetch a file of the server, as if its link had been pressed. */
export function fetchFile(href: string): void {
	const link = document.createElement('a');
	link.href = href;
	link.download = '';
	link.click();
}
