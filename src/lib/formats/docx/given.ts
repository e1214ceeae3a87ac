/** Bytes in the forms that the reader of DOCX knows in a browser and on a server. */
export const given = (bytes: ArrayBuffer) =>
	typeof Buffer === 'undefined' ? { arrayBuffer: bytes } : { arrayBuffer: bytes, buffer: Buffer.from(bytes) };
