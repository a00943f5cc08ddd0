<!-- The photos of a finding: shown small, opened large; taken by the tablet's camera or chosen from a file. -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import type { Finding } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { moment } from '../../lib/words';

	interface Props {
		finding: Finding;
		/** Whether the muslin is still open. */
		editable: boolean;
	}
	let { finding, editable }: Props = $props();

	const desk = getDesk();
	let opened = $state<string | null>(null);
	const shown = $derived(finding.photos.find((photo) => photo.uid === opened) ?? null);

	async function add(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
		const input = event.currentTarget;
		for (const file of input.files ?? [])
			if (!(await desk.deeds.photograph(finding.round, finding.uid, file))) break;
		input.value = '';
	}

	async function remove(uid: string): Promise<void> {
		if (await desk.deeds.removePhoto(finding.round, finding.uid, uid)) opened = null;
	}
</script>

<div class="photos">
	{#each finding.photos as photo, i (photo.uid)}
		<button type="button" class="thumb" onclick={() => (opened = photo.uid)}>
			<img src="/api/photos/{photo.uid}" alt="Photo {i + 1} of: {finding.seen}" loading="lazy" />
		</button>
	{/each}
	{#if editable}
		<label class="button small">
			Take a photo
			<input type="file" accept="image/*" capture="environment" class="sr-only" onchange={add} />
		</label>
		<label class="button small">
			Photo from a file
			<input type="file" accept="image/jpeg,image/png,image/webp" multiple class="sr-only" onchange={add} />
		</label>
	{/if}
</div>
<Dialog open={shown !== null} onOpenChange={(e) => !e.open && (opened = null)}>
	<Portal>
		<Dialog.Backdrop class="fixed inset-0 z-40" />
		<Dialog.Positioner class="fixed inset-0 z-50 grid place-items-center">
			<Dialog.Content class="max-w-[94vw] p-4">
				<Dialog.Title class="mb-2 text-lg">{finding.seen}</Dialog.Title>
				{#if shown}
					<img class="whole" src="/api/photos/{shown.uid}" alt="Photo of: {finding.seen}" />
					<p class="soft">Muslin {finding.round}, {moment(shown.taken)}</p>
				{/if}
				<div class="deeds">
					<Dialog.CloseTrigger class="button">Close</Dialog.CloseTrigger>
					{#if editable && shown}
						<button class="button" disabled={desk.deeds.busy} onclick={() => remove(shown!.uid)}
							>Delete this photo for good</button
						>
					{/if}
				</div>
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>

<style>
	.photos {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		align-items: center;
		margin: 0.3rem 0;
	}
	.thumb {
		width: 4rem;
		height: 4rem;
		padding: 0;
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
		overflow: hidden;
		cursor: zoom-in;
	}
	.thumb img {
		width: 100%;
		height: 100%;
		object-fit: cover;
	}
	.whole {
		max-width: 88vw;
		max-height: 70vh;
	}
	.deeds {
		display: flex;
		gap: 0.5rem;
	}
	label:focus-within {
		outline: 2px solid var(--chalk);
		outline-offset: 2px;
	}
</style>
