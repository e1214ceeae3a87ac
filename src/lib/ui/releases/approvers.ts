import type { AnswerOf } from '../../client/cupboard';
import type { Approver } from '../../core/releases';
import { membersOf, type Pickable } from '../kit/person';

/** Everybody whom a step of a route can name: people, departments by their leads, groups. @param but who is left out */
export function approversAmong(people: AnswerOf<'people'>, but?: string): (Pickable & Approver)[] {
	const leads = (department: string) =>
		people.members.filter((one) => one.departmentId === department && one.lead).map((one) => one.name);
	return [
		...membersOf(people.members.filter((one) => one.id !== but && !one.blockedAt)).map((one) => ({
			...one,
			kind: 'person' as const
		})),
		...people.departments.map((one) => ({
			kind: 'department' as const,
			id: one.id,
			name: one.name,
			people: 0,
			note: leads(one.id).join(', ') || 'no lead yet'
		})),
		...people.groups
			.filter((one) => !one.company)
			.map((one) => ({ kind: 'group' as const, id: one.id, name: one.name, people: one.people.length }))
	];
}
