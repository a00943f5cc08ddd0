<!-- Deleting a wearer with everything that belongs to them, for good: asked once more, with what goes. -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import { answered, api, asProblem, type Problem } from '../../lib/api/client';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { navigate } from '../../router';

	let { wearer, name }: { wearer: string; name: string } = $props();

	let open = $state(false);
	let problem = $state<Problem | null>(null);

	async function remove(): Promise<void> {
		try {
			await answered(api.DELETE('/api/wearers/{wearer_id}', { params: { path: { wearer_id: wearer } } }));
			localStorage.removeItem(`izett-sheet-${wearer}`);
			open = false;
			await navigate('/');
		} catch (error) {
			problem = asProblem(error);
		}
	}
</script>

<Dialog {open} onOpenChange={(e) => (open = e.open)} role="alertdialog">
	<Dialog.Trigger class="button small self-start">Delete {name}…</Dialog.Trigger>
	<Portal>
		<Dialog.Backdrop class="fixed inset-0 z-40" />
		<Dialog.Positioner class="fixed inset-0 z-50 grid place-items-center">
			<Dialog.Content class="w-[30rem] max-w-[92vw] p-6">
				<Dialog.Title class="mb-3 text-xl">Delete {name} for good?</Dialog.Title>
				<Dialog.Description>
					All sheets of measures, all jobs with their muslins, findings and story go with them. Nothing of it
					can be brought back, unless you have carried a job out as a file.
				</Dialog.Description>
				{#if problem}<ProblemNote {problem} />{/if}
				<div class="mt-4 flex gap-2">
					<Dialog.CloseTrigger class="button main">Keep</Dialog.CloseTrigger>
					<button class="button" onclick={remove}>Delete everything of {name}</button>
				</div>
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>
