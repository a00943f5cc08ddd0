<!-- To the wearer's size: a diagram enlarged by a known length; pieces that were draped on another body graded to hers. -->
<script lang="ts">
	import type { Given, GivenOut } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { shown } from '../../lib/units.svelte';
	import { withGraded, withKnownLength, type GradedBy } from './given';

	interface Props {
		given: Given;
		found: GivenOut;
		ontry: (given: Given) => void;
	}
	let { given, found, ontry }: Props = $props();

	const LENGTHS: [GradedBy, string][] = [
		['above', 'nape to waist'],
		['below', 'waist to hip'],
	];
	const ends = $derived(
		found.panels.flatMap((panel) =>
			[...new Set(panel.lines.filter((line) => line.role !== 'dart_leg').map((line) => line.name))]
				.filter(Boolean)
				.map((line) => ({
					key: `${panel.name}.${line}`,
					words: `${panel.title.toLowerCase()} ${line.replaceAll('_', ' ')}`,
				})),
		),
	);
	const known = $derived(given.enlarged ? `${given.enlarged.of.panel}.${given.enlarged.of.line}` : '');
	let wanted = $state<string | null>(null);
	const chosen = $derived(wanted ?? known);
	const asked = $derived<[GradedBy, string][]>([
		...['bust', 'waist', 'hip']
			.filter((level) => level in given.levels)
			.map((level): [GradedBy, string] => [level as GradedBy, level]),
		...LENGTHS,
	]);

	function of(by: GradedBy): number | null {
		const { graded } = given;
		const bodies = by === 'above' || by === 'below' ? graded?.[by] : graded?.widths[by];
		return bodies?.of ?? null;
	}
	function tell(length: number | null): void {
		const [panel, ...line] = chosen.split('.');
		ontry(withKnownLength(given, length && panel ? { panel, line: line.join('.') } : null, length ?? 0));
	}
</script>

<h4>Enlarge a diagram</h4>
<p class="soft">One length that is known tells how large everything is: all is enlarged alike.</p>
<label class="row">
	<span>The line that is known</span>
	<select class="field" value={chosen} onchange={(e) => (wanted = e.currentTarget.value)}>
		<option value="">none</option>
		{#each ends as end (end.key)}<option value={end.key}>{end.words}</option>{/each}
	</select>
</label>
{#if chosen}
	<NumberField
		label="is to measure"
		value={given.enlarged && known === chosen ? given.enlarged.length : null}
		unit="cm"
		low={0.5}
		high={500}
		onvalue={tell}
		onempty={() => tell(null)}
	/>
{:else if given.enlarged}
	<button class="button small" onclick={() => tell(null)}>Leave it as it was taken</button>
{/if}

<h4>Grade to another body</h4>
<p class="soft">{shelf.all?.cautions.graded?.join(' ')}</p>
{#each asked as [by, words] (by)}
	{@const to = found.body[by]}
	{#if to !== undefined}
		<div class="graded">
			<NumberField
				label="{words} of the body it was draped on"
				value={of(by)}
				unit="cm"
				low={to / found.most_graded}
				high={to * found.most_graded}
				onvalue={(value) => ontry(withGraded(given, by, { of: value, to }))}
				onempty={() => ontry(withGraded(given, by, null))}
			/>
			<span class="figures soft">to {shown(to)}</span>
		</div>
	{/if}
{/each}
{#if Object.keys(found.body).length === 0}
	<p class="soft">Take the wearer’s girths first, in Measure.</p>
{/if}

<style>
	.row,
	.graded {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
		margin: 0.3rem 0;
	}
	.row .field {
		max-width: 15rem;
	}
	h4 {
		margin: 0.6rem 0 0.2rem;
	}
	p {
		margin: 0.2rem 0;
	}
</style>
