<!-- The key sheet: `?` shows what each key does. -->
<script lang="ts">
	import { typedInto } from './keys';
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';

	let open = $state(false);

	const KEYS: [string, string][] = [
		['?', 'this sheet'],
		['1 2 3 4 5 6 7', 'Measure, Draft, Style, Check, Fit, Drape, Cut'],
		['B', 'the bench'],
		['Ctrl Z  /  Ctrl Shift Z', 'undo, redo'],
		['L', 'the story of the job'],
		['U', 'the block under the style, or the garment as styled (on Draft)'],
		['+  −  0', 'nearer, further, all pieces (on the table)'],
		['arrows', 'move over the table'],
		['←  →', 'back and on along a seam (on the walk)'],
		['Enter  ↓  ↑', 'next measure, onward, back (on the sheet and guided)'],
		['↓  ↑  1 … 5', 'on, back, did it help (fitting with busy hands)'],
		['[  ]  {  }', 'the sheet under, the sheet over (tracing paper)'],
		['Enter  ↓  ↑  Alt ↓  Alt ↑', 'next mark, on, back, move it on or back (typing marks)'],
		['arrows  Shift arrows', 'move the mark by 1 mm, with Shift by 1 cm (on the panel)'],
		['Esc', 'close'],
	];

	function key(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (event.key === '?' && !typedInto(target)) {
			event.preventDefault();
			open = true;
		}
	}
</script>

<svelte:window onkeydown={key} />
<Dialog {open} onOpenChange={(e) => (open = e.open)}>
	<Portal>
		<Dialog.Backdrop class="fixed inset-0 z-40" />
		<Dialog.Positioner class="fixed inset-0 z-50 grid place-items-center">
			<Dialog.Content class="w-[30rem] max-w-[92vw] p-6">
				<Dialog.Title class="mb-3 text-xl">Keys</Dialog.Title>
				<dl>
					{#each KEYS as [keys, what] (keys)}
						<dt><kbd>{keys}</kbd></dt>
						<dd>{what}</dd>
					{/each}
				</dl>
				<p class="hint">Every number may be typed in either unit: 37 1/2, 37½, 95.2cm, 14".</p>
				<Dialog.CloseTrigger class="button mt-3">Close</Dialog.CloseTrigger>
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>

<style>
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.35rem 1rem;
		margin: 0;
	}
	kbd {
		font-family: inherit;
		font-weight: 600;
	}
	dd {
		margin: 0;
	}
	.hint {
		color: var(--ink-soft);
		margin-top: 1rem;
	}
</style>
