<!-- Walk: one edge rolled along the other, by slider or by key; notches and where the shapes part are read off. -->
<script lang="ts">
	import { api, type Walk } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { shown } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		onwalk: (walk: { walk: Walk; at: number } | null) => void;
		ondraws: (names: string[]) => void;
	}
	let { onwalk, ondraws }: Props = $props();

	const desk = getDesk();
	const seams = $derived(desk.trial.preview?.seams ?? []);
	let chosen = $state('');
	const name = $derived(chosen || (seams.find((s) => s.name === 'cap')?.name ?? seams[0]?.name ?? ''));
	const walked = desk.reads<Walk>();
	const walk = $derived(walked.value);
	let at = $state(0);

	$effect(() => {
		const { job } = desk;
		// Walked again whenever the pattern changes under it.
		if (!job || !name || !desk.trial.preview) return;
		ondraws(seams.find((s) => s.name === name)?.lines ?? []);
		const body = { sheet: job.sheet.id, recipe: job.recipe, seam: name, job: job.id };
		void walked.load(api.POST('/api/walk', { body })).then((found) => {
			if (!found) return;
			at = Math.min(at, found.steps.length - 1);
			onwalk({ walk: found, at });
		});
	});

	function to(step: number): void {
		if (!walk) return;
		at = Math.min(Math.max(step, 0), walk.steps.length - 1);
		onwalk({ walk, at });
	}

	function key(event: KeyboardEvent): void {
		if ((event.target as HTMLElement).closest('input, select, textarea, svg')) return;
		if (event.key === 'ArrowLeft') to(at - 1);
		else if (event.key === 'ArrowRight') to(at + 1);
		else return;
		event.preventDefault();
	}

	/** The slider takes the keys as soon as there is something to walk. */
	function taking(slider: HTMLInputElement): void {
		slider.focus();
	}

	const here = $derived(walk?.steps[at]);
	const over = $derived(walk ? walk.lengths[1] - walk.lengths[0] : 0);
	const farthest = $derived(walk ? Math.max(...walk.steps.map((s) => s.gap)) : 0);
	/** Notches of both sides, each with the one that it meets, by order. */
	const pairs = $derived(
		walk
			? Array.from({ length: Math.max(walk.first.length, walk.second.length) }, (_, i) => ({
					one: walk!.first[i],
					two: walk!.second[i],
				}))
			: [],
	);
</script>

<svelte:window onkeydown={key} />
<p class="row">
	<label for="seam">Seam</label>
	<select id="seam" class="field" value={name} onchange={(e) => ((chosen = e.currentTarget.value), (at = 0))}>
		{#each seams as seam (seam.name)}<option value={seam.name}>{lineName(seam.name)}</option>{/each}
	</select>
</p>
{#if walk}
	<label for="along">Walked along: {shown(here?.along ?? 0)} of {shown(walk.lengths[0])}</label>
	<input
		id="along"
		class="along"
		use:taking
		type="range"
		min="0"
		max={walk.steps.length - 1}
		value={at}
		oninput={(e) => to(Number(e.currentTarget.value))}
	/>
	<p class="soft">← and → walk back and on.</p>
	<dl class="figures">
		<dt>{walk.words[0]}</dt>
		<dd>{shown(walk.lengths[0])}</dd>
		<dt>{walk.words[1]}</dt>
		<dd>{shown(walk.lengths[1])}</dd>
		<dt>{over >= 0 ? 'longer by' : 'shorter by'}</dt>
		<dd>{shown(Math.abs(over))}</dd>
		<dt>ease meant</dt>
		<dd>
			{walk.ease[0] === walk.ease[1]
				? shown(walk.ease[0])
				: `${shown(walk.ease[0])} to ${shown(walk.ease[1])}`}
		</dd>
		<dt>the shapes part by, per step</dt>
		<dd>{shown(farthest)}</dd>
		<dt>here</dt>
		<dd>{shown(here?.gap ?? 0)}</dd>
	</dl>
	{#if pairs.length}
		<table class="figures">
			<thead><tr><th>Notch</th><th>{walk.words[0]}</th><th>{walk.words[1]}</th></tr></thead>
			<tbody>
				{#each pairs as pair, i (i)}
					<tr>
						<td>{i + 1}{(pair.one ?? pair.two)?.double ? ', double' : ''}</td>
						<td>{pair.one ? shown(pair.one.along) : 'none'}</td>
						<td>{pair.two ? shown(pair.two.along) : 'none'}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
{:else if !seams.length}
	<p class="soft">This pattern has no seam to walk.</p>
{/if}

<style>
	.row {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
		margin: 0 0 0.6rem;
	}
	.row select {
		flex: 1;
	}
	.along {
		width: 100%;
		accent-color: var(--chalk);
	}
	.soft {
		margin: 0;
	}
	dl {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0.1rem 0.8rem;
		margin: 0.6rem 0;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
		text-align: right;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		text-align: right;
		padding: 0.15rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	th:first-child,
	td:first-child {
		text-align: left;
	}
</style>
