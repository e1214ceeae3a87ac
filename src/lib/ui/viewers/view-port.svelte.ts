/** Where a sheet stands on the screen: screen = sheet × scale + (x, y), in CSS pixels. */
export class ViewPort {
	scale = $state(1);
	x = $state(0);
	y = $state(0);
	width = $state(0);
	height = $state(0);
	/** Size of the sheet in its own units. */
	sheetWidth = 1;
	sheetHeight = 1;
	private fitted = 1;

	constructor(private readonly mostZoom = 64) {}

	/** Shows the whole sheet with a margin. */
	fit(): void {
		if (!this.width || !this.height) return;
		this.fitted = Math.min((this.width - 32) / this.sheetWidth, (this.height - 32) / this.sheetHeight);
		this.scale = this.fitted;
		this.x = (this.width - this.sheetWidth * this.scale) / 2;
		this.y = (this.height - this.sheetHeight * this.scale) / 2;
	}

	/** Whether the sheet lies as `fit` would lay it. */
	get isWhole(): boolean {
		return (
			this.scale === this.fitted &&
			Math.abs(this.x - (this.width - this.sheetWidth * this.scale) / 2) < 0.5 &&
			Math.abs(this.y - (this.height - this.sheetHeight * this.scale) / 2) < 0.5
		);
	}

	/** Percent of the fitted size. */
	get percent(): number {
		return Math.round((this.scale / this.fitted) * 100);
	}

	/** Zooms by a factor around a point of the screen; the middle when none is given. */
	zoom(factor: number, atX = this.width / 2, atY = this.height / 2): void {
		const next = Math.max(this.fitted / 8, Math.min(this.fitted * this.mostZoom, this.scale * factor));
		this.x = atX - ((atX - this.x) * next) / this.scale;
		this.y = atY - ((atY - this.y) * next) / this.scale;
		this.scale = next;
	}

	pan(dx: number, dy: number): void {
		this.x += dx;
		this.y += dy;
	}

	/** Brings a box of the sheet into the middle. */
	showBox(x: number, y: number, w: number, h: number): void {
		this.x = this.width / 2 - (x + w / 2) * this.scale;
		this.y = this.height / 2 - (y + h / 2) * this.scale;
	}
}

/** Wheel, drag, pinch and keys on an element move its view port. For use as an attachment. */
export function moves(port: ViewPort): (element: HTMLElement) => () => void {
	return (element) => {
		const pointers = new Map<number, { x: number; y: number }>();
		const at = (event: MouseEvent) => {
			const box = element.getBoundingClientRect();
			return { x: event.clientX - box.left, y: event.clientY - box.top };
		};
		const wheel = (event: WheelEvent) => {
			event.preventDefault();
			const { x, y } = at(event);
			if (event.shiftKey) port.pan(-event.deltaY, 0);
			else port.zoom(Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0016)), x, y);
		};
		const down = (event: PointerEvent) => {
			if (event.button > 1) return;
			element.setPointerCapture(event.pointerId);
			pointers.set(event.pointerId, at(event));
		};
		const move = (event: PointerEvent) => {
			const before = pointers.get(event.pointerId);
			if (!before) return;
			const now = at(event);
			const other = [...pointers].find(([id]) => id !== event.pointerId)?.[1];
			if (other) {
				const spread = (p: { x: number; y: number }) => Math.hypot(p.x - other.x, p.y - other.y) || 1;
				port.zoom(spread(now) / spread(before), (now.x + other.x) / 2, (now.y + other.y) / 2);
			} else port.pan(now.x - before.x, now.y - before.y);
			pointers.set(event.pointerId, now);
		};
		const up = (event: PointerEvent) => pointers.delete(event.pointerId);
		const key = (event: KeyboardEvent) => {
			const steps: Record<string, () => void> = {
				'+': () => port.zoom(1.25),
				'=': () => port.zoom(1.25),
				'-': () => port.zoom(0.8),
				'0': () => port.fit(),
				ArrowLeft: () => port.pan(60, 0),
				ArrowRight: () => port.pan(-60, 0),
				ArrowUp: () => port.pan(0, 60),
				ArrowDown: () => port.pan(0, -60)
			};
			if (!steps[event.key] || event.ctrlKey || event.metaKey) return;
			event.preventDefault();
			steps[event.key]!();
		};
		const resize = new ResizeObserver(() => {
			// A sheet that was shown whole still is when there is more or less room.
			const whole = port.width === 0 || port.isWhole;
			port.width = element.clientWidth;
			port.height = element.clientHeight;
			if (whole) port.fit();
		});
		resize.observe(element);
		element.addEventListener('wheel', wheel, { passive: false });
		element.addEventListener('pointerdown', down);
		element.addEventListener('pointermove', move);
		element.addEventListener('pointerup', up);
		element.addEventListener('pointercancel', up);
		element.addEventListener('keydown', key);
		return () => {
			resize.disconnect();
			element.removeEventListener('wheel', wheel);
			element.removeEventListener('pointerdown', down);
			element.removeEventListener('pointermove', move);
			element.removeEventListener('pointerup', up);
			element.removeEventListener('pointercancel', up);
			element.removeEventListener('keydown', key);
		};
	};
}

/** Sets a canvas to the size of its view port in device pixels and gives its context, cleared. */
export function prepare(
	canvas: HTMLCanvasElement,
	port: ViewPort
): { context: CanvasRenderingContext2D; ratio: number } {
	const ratio = window.devicePixelRatio || 1;
	const width = Math.round(port.width * ratio);
	const height = Math.round(port.height * ratio);
	if (canvas.width !== width || canvas.height !== height) {
		canvas.width = width;
		canvas.height = height;
	}
	const context = canvas.getContext('2d')!;
	context.setTransform(1, 0, 0, 1, 0, 0);
	context.clearRect(0, 0, width, height);
	return { context, ratio };
}
