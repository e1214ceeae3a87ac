<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { membersOf, type Pickable } from '../kit/person';
	import ReasonDialog from '../kit/ReasonDialog.svelte';
	import { toast } from '../kit/toast';
	import { attempt } from '../platform/api';
	import { plural } from '../platform/words';
	import AddDeliverables from './AddDeliverables.svelte';
	import ChangeDeliverables from './ChangeDeliverables.svelte';
	import type { Asking, Stages } from './choices';
	import ReleaseDialog from '../releases/ReleaseDialog.svelte';
	import DeliverableDialog from './DeliverableDialog.svelte';
	import GapsDialog from './GapsDialog.svelte';
	import ImportDialog from './ImportDialog.svelte';
	import KeepTemplate from './KeepTemplate.svelte';
	import MovePlanned from './MovePlanned.svelte';
	import TemplateDialog from './TemplateDialog.svelte';

	/** Every dialog of the register; fetched when the first of them is asked for. */
	let {
		open = $bindable(true),
		asking,
		project,
		code,
		frame,
		stages,
		done,
		ask
	}: {
		open: boolean;
		asking: Asking;
		project: string;
		code: string;
		frame: AnswerOf<'projectFrame'>;
		stages: Stages;
		done: () => Promise<void>;
		ask: (what: Asking) => void;
	} = $props();

	let people = $state.raw<Pickable[]>([]);
	void attempt(async () => {
		const { members } = await cupboard.people({ project });
		people = membersOf(members.filter((one) => !one.outside));
	});
	/** What was asked is over: the list is another. */
	async function over() {
		open = false;
		await done();
	}

	async function remove(deliverables: string[], reason: string) {
		await cupboard.removeDeliverables({ project, deliverables, reason });
		await over();
		toast(`${plural(deliverables.length, 'deliverable')} taken out of the register.`, {
			takeBack: async () => {
				await cupboard.restoreDeliverables({ project, deliverables });
				await done();
			}
		});
	}
</script>

{#if asking.what === 'add'}<AddDeliverables
		bind:open
		{project}
		{frame}
		{stages}
		{people}
		number={asking.number}
		done={over}
	/>{:else if asking.what === 'import'}<ImportDialog
		bind:open
		{project}
		{stages}
		done={over}
	/>{:else if asking.what === 'gaps'}<GapsDialog
		bind:open
		{project}
		{frame}
		{stages}
		done={over}
	/>{:else if asking.what === 'template'}<TemplateDialog
		bind:open
		{project}
		{frame}
		{stages}
		{people}
		done={over}
	/>{:else if asking.what === 'keep-template'}<KeepTemplate
		bind:open
		{project}
		deliverables={asking.ids}
		done={over}
	/>{:else if asking.what === 'move'}<MovePlanned
		bind:open
		{project}
		{stages}
		deliverables={asking.ids}
		stage={asking.stage}
		day={asking.day}
		calendar={frame.project.workCalendar}
		done={over}
	/>{:else if asking.what === 'change'}<ChangeDeliverables
		bind:open
		{project}
		{frame}
		{stages}
		{people}
		deliverables={asking.ids}
		done={over}
	/>{:else if asking.what === 'release'}<ReleaseDialog
		bind:open
		{project}
		{code}
		me={frame.me.id}
		documents={asking.documents}
	/>{:else if asking.what === 'remove'}{@const ids = asking.ids}<ReasonDialog
		bind:open
		title="Take {plural(ids.length, 'deliverable')} out of the register?"
		consequence="Their documents stay as they are, and their numbers are free again. They can be put back."
		button="Take out of the register"
		dangerous
		act={(reason) => remove(ids, reason)}
	/>{:else}<DeliverableDialog
		bind:open
		{project}
		{code}
		{stages}
		id={asking.id}
		controller={frame.me.controller}
		{done}
		{ask}
	/>{/if}
