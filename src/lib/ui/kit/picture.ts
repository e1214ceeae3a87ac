/** How much finer a picture is drawn than it stands on screen. */
const FINE = 2;

/** A picture that is made of lines as one made of points, on white; null where the browser cannot draw it. */
export async function pngOf(svg: Blob, width: number, height: number): Promise<Blob | null> {
	const address = URL.createObjectURL(svg);
	try {
		const image = new Image();
		image.src = address;
		await image.decode();
		const canvas = document.createElement('canvas');
		[canvas.width, canvas.height] = [width * FINE, height * FINE];
		const on = canvas.getContext('2d');
		if (!on) return null;
		on.fillStyle = 'white';
		on.fillRect(0, 0, canvas.width, canvas.height);
		on.drawImage(image, 0, 0, canvas.width, canvas.height);
		return await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
	} catch {
		return null;
	} finally {
		URL.revokeObjectURL(address);
	}
}
