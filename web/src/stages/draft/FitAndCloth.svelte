<!-- How close and in what cloth: the one control for all ease. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import type { Recipe } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';

	const desk = getDesk();
	type Cloth = NonNullable<Recipe['cloth']>;
	const CLOTHS: Record<string, string> = { woven: 'woven', stretch: 'woven with stretch', knit: 'knit' };
	/** %. What a knit or a woven with stretch usually gives, until it is tried on the cloth. */
	const USUAL_STRETCH: Record<string, number> = { woven: 0, stretch: 20, knit: 50 };
	/** %. No cloth stretches more in comfort. */
	const MOST_STRETCH = 150;

	const fit = $derived(desk.trial.recipe?.fit ?? 'fitted');
	const cloth = $derived<Cloth>(desk.trial.recipe?.cloth ?? { kind: 'woven', stretch: 0 });

	function useFit(value: string): void {
		void desk.deeds.keep((recipe) => ({ ...recipe, fit: value }), `${value} fit`);
	}

	function useCloth(kind: string): void {
		const next = { kind: kind as Cloth['kind'], stretch: USUAL_STRETCH[kind] ?? 0 };
		void desk.deeds.keep((recipe) => ({ ...recipe, cloth: next }), `${CLOTHS[kind]} cloth`);
	}

	function useStretch(stretch: number): void {
		void desk.deeds.keep(
			(recipe) => ({ ...recipe, cloth: { ...cloth, stretch } }),
			`a stretch of ${stretch} %`,
		);
	}
</script>

<div class="fit">
	<SegmentedControl value={fit} onValueChange={(e) => e.value && e.value !== fit && useFit(e.value)}>
		<SegmentedControl.Label>Fit</SegmentedControl.Label>
		<SegmentedControl.Control class="w-full">
			{#each shelf.all?.fits ?? [] as one (one)}
				<SegmentedControl.Item value={one} class="flex-1">
					<SegmentedControl.ItemText>{one}</SegmentedControl.ItemText>
					<SegmentedControl.ItemHiddenInput />
				</SegmentedControl.Item>
			{/each}
		</SegmentedControl.Control>
	</SegmentedControl>
	<div class="cloth">
		<label for="cloth">Cloth</label>
		<select id="cloth" class="field" value={cloth.kind} onchange={(e) => useCloth(e.currentTarget.value)}>
			{#each shelf.all?.cloths ?? [] as kind (kind)}<option value={kind}>{CLOTHS[kind] ?? kind}</option
				>{/each}
		</select>
		{#if cloth.kind !== 'woven'}
			<NumberField
				label="Stretch, in %"
				hideLabel
				value={cloth.stretch ?? 0}
				unit="% stretch"
				low={0}
				high={MOST_STRETCH}
				title="By how much it stretches in comfort"
				onvalue={useStretch}
			/>
		{/if}
	</div>
</div>

<style>
	.fit {
		padding: 0.2rem 0.3rem 0.7rem;
		border-bottom: 1px solid var(--rule);
	}
	.cloth {
		display: flex;
		align-items: center;
		gap: 0.5rem;
		margin-top: 0.6rem;
	}
</style>
