import { describe, expect, it } from 'vitest';
import { placesNamed, readableDetails } from '.';

describe('places that events name (A10)', () => {
	const moved = { number: 'N', to: 'Hidden', toId: 'hidden', from: 'seen' };

	it('are read by those who may look at them only, name and id', () => {
		expect(placesNamed('document.moved', moved)).toEqual(['hidden', 'seen']);
		expect(readableDetails('document.moved', moved, (id) => id === 'seen')).toEqual({
			number: 'N',
			from: 'seen'
		});
		expect(readableDetails('document.moved', moved, () => true)).toEqual(moved);
	});

	it('stay unsaid where an older event has a name without its id', () => {
		expect(readableDetails('folder.made', { name: 'A', in: 'Hidden' }, () => true)).toEqual({ name: 'A' });
	});

	it('are left out together when one of several may not be looked at', () => {
		const restored = { name: 'A', folders: ['B', 'C'], folderIds: ['b', 'c'] };
		expect(readableDetails('place.restored', restored, (id) => id === 'b')).toEqual({ name: 'A' });
	});
});
