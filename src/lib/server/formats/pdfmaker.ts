import { createRequire } from 'node:module';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

const require = createRequire(import.meta.url);
const font = (name: string) => require.resolve(`@expo-google-fonts/archivo/${name}.ttf`);

pdfmake.setFonts({
	Archivo: {
		normal: font('400Regular/Archivo_400Regular'),
		bold: font('600SemiBold/Archivo_600SemiBold'),
		italics: font('400Regular_Italic/Archivo_400Regular_Italic'),
		bolditalics: font('600SemiBold_Italic/Archivo_600SemiBold_Italic')
	}
});
// What is written brings nothing from elsewhere: its pictures are handed over as bytes.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path: string) => path.includes('@expo-google-fonts'));

/** Lays out a document as PDF in the project's own typeface. */
export async function pdfmaker(definition: TDocumentDefinitions): Promise<Uint8Array> {
	return new Uint8Array(await pdfmake.createPdf(definition).getBuffer());
}
