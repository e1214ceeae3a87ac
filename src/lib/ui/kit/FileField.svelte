<script lang="ts">
	import { sizeText } from '../../core/files/sizes';

	/** One file that is asked for, under its label: chosen, or dropped on the field. */
	let {
		label,
		file = $bindable(),
		required = false,
		chosen
	}: {
		label: string;
		file: File | undefined;
		required?: boolean;
		/** Called when a file is chosen. */
		chosen?: () => void;
	} = $props();

	let over = $state(false);
	const id = $props.id();
	function take(files: FileList | null | undefined) {
		if (!files?.length) return;
		file = files[0];
		chosen?.();
	}
</script>

<div>
	<span class="label" aria-hidden="true">{label}</span>
	<label
		class="field relative flex items-center gap-2 py-0! pr-0! pl-2! has-focus-visible:outline-2 {over
			? 'border-act!'
			: ''}"
		ondragover={(event) => {
			event.preventDefault();
			over = true;
		}}
		ondragleave={() => (over = false)}
		ondrop={(event) => {
			event.preventDefault();
			over = false;
			take(event.dataTransfer?.files);
		}}
		><span id="{id}-chosen" class="min-w-0 flex-1 truncate {file ? '' : 'text-ink-2'}"
			>{file ? file.name : 'None chosen, or drop it here'}</span
		>{#if file}<span class="font-mono text-[12px] whitespace-nowrap text-ink-2">{sizeText(file.size)}</span
			>{/if}<span class="button shrink-0 rounded-none! border-y-0! border-r-0!" aria-hidden="true"
			>{file ? 'Another file…' : 'Choose a file…'}</span
		><input
			class="sr-only"
			type="file"
			aria-label={label}
			aria-describedby="{id}-chosen"
			required={required && !file}
			onchange={(event) => {
				take(event.currentTarget.files);
				event.currentTarget.value = '';
			}}
		/></label
	>
</div>
