import { areaOf, lengthOf, SnapIndex, type Snap } from '../../core/dxf/snap';
import type { Sheet } from '../../core/dxf/sheet';
import type { ViewPort } from './view-port.svelte';

/** How near to a point the pointer must come to hold on to it, in pixels. */
const REACH = 12;
const ACT = '#0b6b58';

/** A distance or an area being measured on a drawing, point by point. */
export class Measure {
	points = $state.raw<{ x: number; y: number }[]>([]);
	/** Where the pointer is, held on to what is near. */
	at = $state.raw<(Omit<Snap, 'kind'> & { kind: Snap['kind'] | 'free' }) | null>(null);
	what = $state<'length' | 'area'>('length');
	/** The last point is set; the next begins anew. */
	done = $state(false);
	private readonly index: SnapIndex;

	constructor(private readonly sheet: Sheet) {
		this.index = new SnapIndex(sheet);
	}

	/** The pointer at a place of the screen. */
	hover(x: number, y: number, port: ViewPort, on: boolean[]): void {
		const [left, , , top] = this.sheet.box;
		const point = { x: left + (x - port.x) / port.scale, y: top - (y - port.y) / port.scale };
		this.at = this.index.nearest(point.x, point.y, REACH / port.scale, (layer) => on[layer] === true) ?? {
			...point,
			kind: 'free'
		};
	}

	/** Sets a point where the pointer is. */
	set(): void {
		if (!this.at) return;
		const { x, y } = this.at;
		this.points = this.done ? [{ x, y }] : [...this.points, { x, y }];
		this.done = false;
	}
	end(): void {
		this.done = this.points.length > 0;
	}
	clear(): void {
		this.points = [];
		this.done = false;
	}

	/** What has been measured so far, in words. */
	get says(): string {
		const points = this.done || !this.at ? this.points : [...this.points, this.at];
		if (this.points.length === 0) return 'Click the first point; ends, crossings and middles hold it.';
		const unit = this.sheet.unit;
		const number = (n: number) => n.toLocaleString('en', { maximumFractionDigits: 3 });
		const length = `${number(lengthOf(points))} ${unit || 'units'}`;
		if (this.what === 'length' || points.length < 3) return length;
		return `${number(areaOf(points))} ${unit ? `${unit}²` : 'square units'}, around it ${number(
			lengthOf([...points, points[0]!])
		)} ${unit}`;
	}

	/** Draws the points, the way through them and what the pointer holds on to. */
	draw(context: CanvasRenderingContext2D, port: ViewPort): void {
		const [left, , , top] = this.sheet.box;
		const on = (p: { x: number; y: number }): [number, number] => [
			port.x + (p.x - left) * port.scale,
			port.y + (top - p.y) * port.scale
		];
		const points = this.done || !this.at ? this.points : [...this.points, this.at];
		context.strokeStyle = ACT;
		context.lineWidth = 2;
		if (points.length > 1) {
			context.beginPath();
			points.forEach((p, i) => (i ? context.lineTo(...on(p)) : context.moveTo(...on(p))));
			if (this.what === 'area') {
				context.closePath();
				context.fillStyle = 'rgba(11, 107, 88, 0.14)';
				context.fill();
			}
			context.stroke();
		}
		context.fillStyle = ACT;
		for (const p of this.points) {
			const [x, y] = on(p);
			context.fillRect(x - 3, y - 3, 6, 6);
		}
		if (this.at && this.at.kind !== 'free') drawSnap(context, ...on(this.at), this.at.kind);
	}
}

/** Marks what the pointer holds on to; each kind of hold has a shape of its own. */
export function drawSnap(context: CanvasRenderingContext2D, x: number, y: number, kind: Snap['kind']): void {
	context.strokeStyle = ACT;
	context.lineWidth = 2;
	context.beginPath();
	if (kind === 'end') context.rect(x - 6, y - 6, 12, 12);
	else if (kind === 'middle') {
		context.moveTo(x, y - 7);
		context.lineTo(x + 7, y + 6);
		context.lineTo(x - 7, y + 6);
		context.closePath();
	} else if (kind === 'crossing') {
		context.moveTo(x - 6, y - 6);
		context.lineTo(x + 6, y + 6);
		context.moveTo(x + 6, y - 6);
		context.lineTo(x - 6, y + 6);
	} else if (kind === 'square') {
		context.moveTo(x - 6, y - 7);
		context.lineTo(x - 6, y + 6);
		context.lineTo(x + 7, y + 6);
		context.moveTo(x - 6, y);
		context.lineTo(x, y);
		context.lineTo(x, y + 6);
	} else context.arc(x, y, 5, 0, 2 * Math.PI);
	context.stroke();
}
