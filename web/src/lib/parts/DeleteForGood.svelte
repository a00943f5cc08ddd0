<!-- Deleting something for good: asked once more, with what goes. -->
<script lang="ts">
	import { Trash2 } from '@lucide/svelte';
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';
	import { answered, asProblem, type Answer, type Problem } from '../api/client';
	import ProblemNote from './ProblemNote.svelte';

	interface Props {
		/** What is deleted, as it is called. */
		what: string;
		/** What is written on the button that asks; without it, it shows a bin. */
		ask?: string;
		/** Called when that is wanted. */
		remove: () => Promise<Answer<unknown>>;
		ondone: () => void | Promise<void>;
		/** What goes with it. */
		children: Snippet;
	}
	let { what, ask, remove, ondone, children }: Props = $props();

	let open = $state(false);
	let busy = $state(false);
	let problem = $state<Problem | null>(null);

	async function agreed(): Promise<void> {
		busy = true;
		try {
			await answered(remove());
			open = false;
			await ondone();
		} catch (error) {
			problem = asProblem(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog
	{open}
	onOpenChange={(e) => {
		open = e.open;
		problem = null;
	}}
	role="alertdialog"
>
	<Dialog.Trigger
		class="button small self-start"
		aria-label={ask ? undefined : `Delete ${what}…`}
		title={`Delete ${what}…`}
	>
		{#if ask}{ask}{:else}<Trash2 size={16} />{/if}
	</Dialog.Trigger>
	{#if open}
		<Portal>
			<Dialog.Backdrop class="fixed inset-0 z-40" />
			<Dialog.Positioner class="fixed inset-0 z-50 grid place-items-center">
				<Dialog.Content class="w-[30rem] max-w-[92vw] p-6">
					<Dialog.Title class="mb-3 text-xl">Delete {what} for good?</Dialog.Title>
					<Dialog.Description>{@render children()}</Dialog.Description>
					{#if problem}<ProblemNote {problem} />{/if}
					<div class="mt-4 flex gap-2">
						<Dialog.CloseTrigger class="button main">Keep</Dialog.CloseTrigger>
						<button class="button" disabled={busy} onclick={agreed}>Delete {what}</button>
					</div>
				</Dialog.Content>
			</Dialog.Positioner>
		</Portal>
	{/if}
</Dialog>
