<!-- How close and in what cloth: the one control for all ease. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import type { Recipe } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { getDesk } from '../../lib/desk/context';

	const desk = getDesk();
	type Cloth = NonNullable<Recipe['cloth']>;
	const CLOTHS: Record<string, string> = { woven: 'woven', stretch: 'woven with stretch', knit: 'knit' };
	/** %. What a knit or a woven with stretch usually gives, until it is tried on the cloth. */
	const USUAL_STRETCH: Record<string, number> = { woven: 0, stretch: 20, knit: 50 };

	const fit = $derived(desk.recipe?.fit ?? 'fitted');
	const cloth = $derived<Cloth>(desk.recipe?.cloth ?? { kind: 'woven', stretch: 0 });
	let error = $state('');

	function useFit(value: string): void {
		void desk.keep((recipe) => ({ ...recipe, fit: value }), `${value} fit`);
	}

	function useCloth(kind: string): void {
		const next = { kind: kind as Cloth['kind'], stretch: USUAL_STRETCH[kind] ?? 0 };
		void desk.keep((recipe) => ({ ...recipe, cloth: next }), `${CLOTHS[kind]} cloth`);
	}

	function useStretch(text: string): void {
		const stretch = Number(text.replace(',', '.').replace('%', ''));
		if (!text.trim() || Number.isNaN(stretch) || stretch < 0 || stretch > 150) {
			error = 'Enter a value from 0 to 150 %: by how much 10 cm of it stretch in comfort.';
			return;
		}
		error = '';
		void desk.keep((recipe) => ({ ...recipe, cloth: { ...cloth, stretch } }), `a stretch of ${stretch} %`);
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
			<label for="stretch" class="sr-only">Stretch, in %</label>
			<input
				id="stretch"
				class="field figures"
				autocomplete="off"
				value={cloth.stretch}
				onchange={(e) => useStretch(e.currentTarget.value)}
				aria-invalid={error ? 'true' : undefined}
				aria-describedby={error ? 'stretch-error' : undefined}
			/>
			<span>% stretch</span>
		{/if}
	</div>
	{#if error}<p class="error" id="stretch-error">{error}</p>{/if}
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
	#stretch {
		width: 4rem;
		text-align: right;
	}
	.error {
		margin: 0.3rem 0 0;
		color: var(--wax);
	}
</style>
