import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

describe('dialogs', () => {
	it('exist only while they are open, so that nothing of the time before stands in them', () => {
		const kept: string[] = [];
		for (const file of readdirSync('src', { recursive: true, encoding: 'utf8' })) {
			if (!file.endsWith('.svelte')) continue;
			const text = readFileSync(`src/${file}`, 'utf8');
			const markup = text.slice(text.lastIndexOf('</script>'));
			for (const { index, 1: name, 2: open } of markup.matchAll(
				/<([A-Z]\w+Dialog)\s+bind:\w+(?:=\{(\w+|\(\) => [^,]+),?.*?\})?\s/gs
			)) {
				// A dialog that only passes on whether it is open is opened by whoever uses it.
				if (open === undefined && !/bind:asking/.test(markup.slice(index, index + 40))) continue;
				const when = (open ?? 'asking').replace('() => ', '');
				const before = markup.slice(0, index).replace(/\{#await later\([^{}]*\) then \w+\}\s*$/, '');
				if (!before.trimEnd().endsWith(`{#if ${when}}`)) kept.push(`${file}: ${name}`);
			}
		}
		expect(kept).toEqual([]);
	});
});
