import { strToU8, zipSync } from 'fflate';
import { expect, it } from 'vitest';
import { passedOver } from './passed-over';

const TRACKED = 'Tracked changes come along as if they had been taken.';
const COMMENTS = 'Comments stay in the file.';
it.each([
	[{ 'word/document.xml': '<w:p><w:ins w:author="A">x</w:ins></w:p>' }, [TRACKED]],
	[{ 'word/document.xml': '<w:p/>', 'word/comments.xml': '<w:comment w:id="1"/>' }, [COMMENTS]],
	[{ 'word/document.xml': '<w:p><w:insideH/></w:p>', 'word/comments.xml': '<w:comments/>' }, []],
	[{ 'content.xml': '<text:tracked-changes><text:changed-region/></text:tracked-changes>' }, [TRACKED]],
	[{ 'content.xml': '<text:tracked-changes/><office:annotation/>' }, [COMMENTS]],
	[{ 'styles.xml': '<office:annotation/>' }, []]
])('%o', (parts, said) => {
	const zip = zipSync(Object.fromEntries(Object.entries(parts).map(([name, xml]) => [name, strToU8(xml)])));
	expect(passedOver(Uint8Array.from(zip).buffer)).toEqual(said);
});
