import { DAY } from './spans';
import {
	nextWorkingDay,
	plusWorkingDays,
	WEEKDAYS,
	workingDaysBetween,
	type WorkCalendar
} from './working-days';

/** The days that are counted ahead: those that plans of a project lie in. Others are counted one by one. */
const FIRST = Date.UTC(1990, 0, 1);
const MANY = Math.round((Date.UTC(2100, 0, 1) - FIRST) / DAY);

let names: readonly string[] | null = null;
let places: ReadonlyMap<string, number> | null = null;

/** Every day of the span by its name, and where it stands; made once, when first needed. */
function span() {
	names ??= Array.from({ length: MANY }, (_, i) => {
		const text = new Date(FIRST + i * DAY).toISOString();
		return text.slice(0, 10);
	});
	places ??= new Map(names.map((name, i) => [name, i]));
	return { names, places };
}

/**
 * The working days of a calendar, counted once for many questions: a register asks some hundred thousand at a time. It
 * answers what `working-days` answers.
 */
export class WorkDays {
	/** How many working days lie in the span up to and with each day. */
	private readonly upTo: Int32Array;
	/** Where each working day stands in the span, in order. */
	private readonly at: Int32Array;

	constructor(private readonly calendar: WorkCalendar) {
		const { names, places } = span();
		const weekend = WEEKDAYS.map((day) => calendar.weekend.includes(day));
		const off = new Set(calendar.holidays.map((one) => places.get(one.day)));
		// 1 January 1990 was a Monday.
		this.upTo = new Int32Array(names.length);
		const at: number[] = [];
		for (let i = 0; i < names.length; i++) {
			if (!weekend[i % 7] && !off.has(i)) at.push(i);
			this.upTo[i] = at.length;
		}
		this.at = Int32Array.from(at);
	}

	/** The day itself when it is a working day, else the next one. */
	next(day: string): string {
		const i = span().places.get(day);
		if (i === undefined) return nextWorkingDay(day, this.calendar);
		const found = this.at[i === 0 ? 0 : this.upTo[i - 1]!];
		return found === undefined ? nextWorkingDay(day, this.calendar) : span().names[found]!;
	}

	/** The day so many working days after another, or before it; see `plusWorkingDays`. */
	plus(day: string, days: number): string {
		if (days === 0) return this.next(day);
		const i = span().places.get(day);
		if (i === undefined) return plusWorkingDays(day, days, this.calendar);
		const before = days > 0 ? this.upTo[i]! : i === 0 ? 0 : this.upTo[i - 1]!;
		const found = this.at[days > 0 ? before + days - 1 : before + days];
		return found === undefined ? plusWorkingDays(day, days, this.calendar) : span().names[found]!;
	}

	/** How many working days lie after one day up to and with another; negative when the other is earlier. */
	between(from: string, to: string): number {
		const { places } = span();
		const [a, b] = [places.get(from), places.get(to)];
		if (a === undefined || b === undefined) return workingDaysBetween(from, to, this.calendar);
		return this.upTo[b]! - this.upTo[a]!;
	}
}
