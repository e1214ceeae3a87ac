import { toast } from 'svelte-sonner';
import { attempt, call } from './api';
import { plural } from './words';

interface Before {
	id: string;
	from: string | null;
	tags: string[];
}

/** Moves documents, and offers to take it back. */
export async function moveDocuments(
	project: string,
	documents: string[],
	to: { id: string; name: string },
	then: () => unknown
): Promise<void> {
	const done = await attempt(() =>
		call<{ documents: Before[] }>('POST', `/projects/${project}/documents/tidy`, { documents, to: to.id })
	);
	if (!done) return;
	toast.success(`${plural(documents.length, 'document')} moved to ${to.name}.`, {
		duration: 10_000,
		action: { label: 'Take back', onClick: () => void moveBack(project, done.documents, then) }
	});
	await then();
}

async function moveBack(project: string, before: Before[], then: () => unknown): Promise<void> {
	const folders = new Set(before.flatMap((b) => b.from ?? []));
	for (const to of folders) {
		const documents = before.filter((b) => b.from === to).map((b) => b.id);
		if (!(await attempt(() => call('POST', `/projects/${project}/documents/tidy`, { documents, to }))))
			return;
	}
	toast.success('They are back where they were.');
	await then();
}

/** Gives documents tags and takes tags from them, and offers to take it back. */
export async function tagDocuments(
	project: string,
	documents: string[],
	change: { tag: string[]; untag: string[] },
	then: () => unknown
): Promise<void> {
	const { documents: before } = await call<{ documents: Before[] }>(
		'POST',
		`/projects/${project}/documents/tidy`,
		{
			documents,
			...change
		}
	);
	toast.success(`${plural(documents.length, 'document')} tagged.`, {
		duration: 10_000,
		action: {
			label: 'Take back',
			onClick: () =>
				void attempt(async () => {
					for (const one of before) await call('PATCH', `/documents/${one.id}`, { tags: one.tags });
					await then();
				})
		}
	});
	await then();
}

/** Copies documents into a folder, and offers to take the copies away again. */
export async function copyDocuments(
	project: string,
	documents: string[],
	to: string,
	then: () => unknown
): Promise<void> {
	const { documents: made } = await call<{ documents: { id: string; number: string }[] }>(
		'POST',
		`/projects/${project}/documents/copies`,
		{ documents, to }
	);
	toast.success(
		`Copied as ${made
			.slice(0, 3)
			.map((m) => m.number)
			.join(', ')}${made.length > 3 ? ` and ${made.length - 3} more` : ''}.`,
		{
			duration: 10_000,
			action: {
				label: 'Take back',
				onClick: () =>
					void attempt(async () => {
						for (const one of made)
							await call('POST', `/places/${one.id}/removal`, { reason: 'Copied by mistake' });
						await then();
					})
			}
		}
	);
	await then();
}

/**
 * Has the newest versions of documents sent as one zip. A form, so that the browser streams it to the disk; into a
 * frame that nobody sees, so that a refusal does not take the page away but is said on it.
 */
export function downloadZip(project: string, documents: string[]): void {
	const frame = document.createElement('iframe');
	frame.name = 'cupboard-zip';
	frame.hidden = true;
	// A download never loads into the frame; what loads is why there is none.
	frame.onload = () => {
		const said = frame.contentDocument?.body.textContent ?? '';
		if (!said) return;
		try {
			toast.error((JSON.parse(said) as { detail: string }).detail);
		} catch {
			toast.error('The zip could not be made. Try again.');
		}
		frame.remove();
	};
	document.getElementsByName(frame.name)[0]?.remove();
	document.body.append(frame);
	const form = document.createElement('form');
	form.method = 'post';
	form.action = `/api/v1/zip/${project}`;
	form.target = frame.name;
	const field = document.createElement('input');
	field.type = 'hidden';
	field.name = 'documents';
	field.value = documents.join(',');
	form.append(field);
	document.body.append(form);
	form.submit();
	form.remove();
}
