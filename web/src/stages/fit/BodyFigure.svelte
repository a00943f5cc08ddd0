<!-- The figure, front or back, with the findings of this round on it. -->
<script lang="ts">
	import type { BodyDrawing as Drawn, Finding, Kind } from '../../lib/api/client';
	import BodyDrawing from '../../lib/parts/BodyDrawing.svelte';
	import { pencil } from '../../lib/words';
	import { spotsOf } from './spots';

	interface Props {
		figure: Drawn;
		view: 'front' | 'back';
		kinds: Kind[];
		findings: Finding[];
		chosen: string | null;
		/** Told which kinds lie at the spot that was pointed at. */
		onspot: (kinds: string[]) => void;
	}
	let { figure, view, kinds, findings, chosen, onspot }: Props = $props();

	/** cm below the waist that are shown: findings end at the hip. */
	const LOWEST = -21;
	const here = $derived(kinds.filter((kind) => kind.view === view));
	const spots = $derived(spotsOf(figure, here));

	/** Where the dots of a spot lie: on the side of the wearer that was found, seen from the front or from behind. */
	function dots(x: number, hit: Finding | undefined): number[] {
		const left = view === 'front' ? x : -x;
		if (!hit) return [x];
		return hit.side === 'both' ? [x, -x] : [hit.side === 'left' ? left : -left];
	}

	function found(kind: Kind): Finding | undefined {
		return findings.find((finding) => finding.kind === kind.key);
	}
</script>

<figure>
	<BodyDrawing {figure} {view} label="The wearer from the {view}" from={LOWEST}>
		{#snippet on()}
			{#each spots as spot (`${spot.x} ${spot.y}`)}
				{@const hit = spot.kinds.map(found).find(Boolean)}
				{@const isChosen = spot.kinds.some((kind) => kind.key === chosen)}
				<g
					role="button"
					tabindex="0"
					class="spot"
					class:chosen={isChosen}
					aria-label={spot.kinds.map((k) => k.seen).join('; ')}
					onclick={() => onspot(spot.kinds.map((k) => k.key))}
					onkeydown={(e) => (e.key === 'Enter' || e.key === ' ') && onspot(spot.kinds.map((k) => k.key))}
				>
					<title>{spot.kinds.map((k) => k.seen).join(' / ')}</title>
					{#each dots(spot.x, hit) as x (x)}
						<circle cx={x} cy={-spot.y} r="2.6" class="reach" />
						<circle
							cx={x}
							cy={-spot.y}
							r="1.5"
							class="dot"
							class:found={hit}
							style:fill={hit ? pencil(hit.round) : undefined}
						/>
					{/each}
				</g>
			{/each}
		{/snippet}
	</BodyDrawing>
	<figcaption>{view}</figcaption>
</figure>

<style>
	figure {
		margin: 0;
		flex: 1;
		min-width: 0;
	}
	figure :global(svg) {
		height: 17rem;
	}
	figcaption {
		text-align: center;
		color: var(--ink-soft);
	}
	.reach {
		fill: transparent;
		cursor: pointer;
	}
	.dot {
		fill: var(--paper);
		stroke: var(--ink-soft);
		stroke-width: 1.5;
		vector-effect: non-scaling-stroke;
		pointer-events: none;
	}
	.spot:hover .dot,
	.spot.chosen .dot {
		stroke: var(--chalk);
		stroke-width: 3;
	}
	.dot.found {
		stroke: var(--ink);
	}
</style>
