import type { Manifest } from '../src/lib/core/releases';

/** The signed list of a release to one person, without documents. */
export const MANIFEST: Manifest = {
	format: 'cupboard-manifest/1',
	project: 'VFT Vennholm Ferry Terminal',
	release: '0042',
	title: 'Linkspan för Øresund',
	purpose: 'approval',
	issuedAt: '2026-11-12T10:00:00.000Z',
	issuedBy: 'Ines Maddock',
	approvedBy: 'Halla Brandt',
	recipient: 'Maren Aldgate, Vennholm Harbour Trust',
	documents: []
};
