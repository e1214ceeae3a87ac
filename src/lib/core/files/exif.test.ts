import exifr from 'exifr';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { withoutPosition } from './exif';

async function photograph(): Promise<Uint8Array> {
	const picture = sharp({ create: { width: 8, height: 6, channels: 3, background: '#336699' } });
	return new Uint8Array(
		await picture
			.withExif({
				IFD0: { Make: 'Vennholm Optics', Orientation: '6' },
				IFD3: {
					GPSLatitudeRef: 'N',
					GPSLatitude: '57/1 12/1 30/1',
					GPSLongitudeRef: 'E',
					GPSLongitude: '11/1 5/1 0/1'
				}
			})
			.withXmp('<x:xmpmeta xmlns:x="adobe:ns:meta/"><gps>57.2</gps></x:xmpmeta>')
			.jpeg()
			.toBuffer()
	);
}

describe('a photograph without its place', () => {
	it('loses the place and keeps the rest', async () => {
		const before = await photograph();
		expect(await exifr.gps(before)).toMatchObject({ latitude: expect.closeTo(57.208, 2) });
		const after = withoutPosition(before);
		expect(await exifr.gps(after)).toBeUndefined();
		expect(Buffer.from(after).toString('latin1')).not.toContain('<gps>');
		expect(await exifr.parse(after, ['Make'])).toEqual({ Make: 'Vennholm Optics' });
		const pixels = (bytes: Uint8Array) => sharp(bytes).raw().toBuffer();
		expect((await pixels(after)).equals(await pixels(before))).toBe(true);
		expect(withoutPosition(after)).toBe(after);
	});

	it('gives back what is no JPEG, is cut off, or lies about its lengths', async () => {
		const whole = await photograph();
		expect(withoutPosition(new Uint8Array([1, 2, 3]))).toEqual(new Uint8Array([1, 2, 3]));
		for (let length = 2; length < 700 && length < whole.length; length += 7)
			expect(() => withoutPosition(whole.subarray(0, length))).not.toThrow();
		for (let at = 2; at < 400; at++) {
			const broken = whole.slice();
			broken[at] = 0xff;
			expect(() => withoutPosition(broken)).not.toThrow();
		}
	});
});
