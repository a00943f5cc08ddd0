<!-- Whether the work can be kept, and how long ago it was copied: said only where there is something to do. -->
<script lang="ts">
	import { answered, api, asProblem, type Keeping, type Problem } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';

	const keeping = new Loaded<Keeping>();
	let made = $state('');
	let busy = $state(false);
	let problem = $state<Problem | null>(null);

	void keeping.load(api.GET('/api/keeping'));

	async function backUp(): Promise<void> {
		busy = true;
		problem = null;
		try {
			const backup = await answered(api.POST('/api/backups'));
			made = `${backup.name}, in the folder “${backup.folder}” beside the database`;
			await keeping.load(api.GET('/api/keeping'));
		} catch (error) {
			problem = asProblem(error);
		} finally {
			busy = false;
		}
	}
</script>

{#if keeping.value?.read_only}
	<p class="note" role="status">
		<strong>The folder of your work cannot be written.</strong> Everything can be looked at and carried out; nothing
		new can be kept. Free some space on the disk, or make the folder writable, then start the program again.
	</p>
{/if}
{#if problem}
	<ProblemNote {problem}>
		<button class="button small main" onclick={backUp}>Do it again</button>
	</ProblemNote>
{/if}
{#if made}
	<p class="note" role="status">Backup written: {made}. Copy it to another disk as well.</p>
{:else if keeping.value?.remind && !keeping.value.read_only}
	<div class="note" role="status">
		<p>{keeping.value.remind} A disk can fail on any day.</p>
		<button class="button small main" disabled={busy} onclick={backUp}>Make a backup now</button>
		<a class="button small" href="/api/everything" download>Carry everything out as one file</a>
	</div>
{/if}

<style>
	.note {
		margin: 0 0 1rem;
	}
	.note p {
		margin: 0 0 0.4rem;
	}
</style>
