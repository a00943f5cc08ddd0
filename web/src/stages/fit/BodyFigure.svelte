<!-- The figure, front or back, with the findings of this round on it. -->
<script lang="ts">
	import type { Finding, Kind } from '../../lib/api/client';
	import { pencil } from '../../lib/words';
	import { sidePath, spotAt, type Figure } from './figure';

	interface Props {
		figure: Figure;
		view: 'front' | 'back';
		kinds: Kind[];
		findings: Finding[];
		chosen: string | null;
		onchoose: (kind: string) => void;
	}
	let { figure, view, kinds, findings, chosen, onchoose }: Props = $props();

	const reach = $derived(
		Math.max(figure.levels.shoulder.half, figure.levels.bust.half, figure.levels.hip.half) + 7,
	);
	const top = $derived(figure.levels.neck.y + 9);
	const here = $derived(kinds.filter((kind) => kind.view === view));

	/** Kinds that lie on one spot share it: the one that was found, or the chosen one, shows. */
	const spots = $derived.by(() => {
		const places: { x: number; y: number; kinds: Kind[] }[] = [];
		for (const kind of here) {
			const at = spotAt(figure, kind.level, kind.across);
			const place = places.find((p) => p.x === at.x && p.y === at.y);
			if (place) place.kinds.push(kind);
			else places.push({ ...at, kinds: [kind] });
		}
		return places;
	});

	function found(kind: Kind): Finding | undefined {
		return findings.find((finding) => finding.kind === kind.key);
	}
</script>

<figure>
	<svg viewBox="{-reach} {-top} {2 * reach} {top + 22}" role="group" aria-label="The wearer from the {view}">
		<g transform="scale(1 -1)" class="body">
			<path d={sidePath(figure, 1)} />
			<path d={sidePath(figure, -1)} />
			<path
				class="balance"
				d="M{-figure.levels.bust.half} {figure.levels.bust.y}H{figure.levels.bust.half}"
			/>
			<path class="balance" d="M{-figure.levels.waist.half} 0H{figure.levels.waist.half}" />
			<path class="balance" d="M0 {figure.levels.neck.y - 3}V-20" />
		</g>
		{#each spots as spot (`${spot.x} ${spot.y}`)}
			{@const hit = spot.kinds.map(found).find(Boolean)}
			{@const isChosen = spot.kinds.some((kind) => kind.key === chosen)}
			<g
				role="button"
				tabindex="0"
				class="spot"
				class:chosen={isChosen}
				aria-label={spot.kinds.map((k) => k.seen).join('; ')}
				onclick={() => onchoose(spot.kinds.find((k) => k.key !== chosen)?.key ?? spot.kinds[0]!.key)}
				onkeydown={(e) => (e.key === 'Enter' || e.key === ' ') && onchoose(spot.kinds[0]!.key)}
			>
				<title>{spot.kinds.map((k) => k.seen).join(' / ')}</title>
				<circle cx={spot.x} cy={-spot.y} r="2.6" class="reach" />
				<circle
					cx={spot.x}
					cy={-spot.y}
					r="1.5"
					class="dot"
					class:found={hit}
					style:fill={hit ? pencil(hit.round) : undefined}
				/>
			</g>
		{/each}
	</svg>
	<figcaption>{view}</figcaption>
</figure>

<style>
	figure {
		margin: 0;
		flex: 1;
		min-width: 0;
	}
	svg {
		width: 100%;
		height: 17rem;
	}
	figcaption {
		text-align: center;
		color: var(--ink-soft);
	}
	.body path {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.5;
		vector-effect: non-scaling-stroke;
		stroke-linecap: round;
	}
	.body .balance {
		stroke: var(--rule);
		stroke-dasharray: 3 3;
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
