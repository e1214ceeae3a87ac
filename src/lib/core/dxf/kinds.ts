/** An entity's type as people in a drawing office call it. */
const ENTITY: Record<string, string> = {
	LINE: 'line',
	LWPOLYLINE: 'polyline',
	POLYLINE: 'polyline',
	CIRCLE: 'circle',
	ARC: 'arc',
	ELLIPSE: 'ellipse',
	SPLINE: 'spline',
	TEXT: 'text',
	MTEXT: 'text',
	DIMENSION: 'dimension',
	INSERT: 'block',
	HATCH: 'hatch',
	SOLID: 'solid',
	LEADER: 'leader',
	POINT: 'point',
	WIPEOUT: 'wipeout',
	IMAGE: 'picture',
	OLE2FRAME: 'object of another program',
	MLINE: 'multiple line',
	RAY: 'ray',
	XLINE: 'construction line',
	REGION: 'region',
	'3DSOLID': 'solid body',
	ACAD_PROXY_ENTITY: 'object of another program',
	TOLERANCE: 'tolerance'
};

export const entityWord = (type: string) => ENTITY[type] ?? type.toLowerCase();
