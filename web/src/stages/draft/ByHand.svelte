<!-- Line by line: the draft as a hand would draw it, each sum with the lines that it settles. -->
<script lang="ts">
	import { ChevronLeft, ChevronRight, Pause, Play } from '@lucide/svelte';
	import { onDestroy } from 'svelte';
	import { getDesk } from '../../lib/desk/context';
	import { reading, show, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';
	import { hiddenAt, inOrder, settledBy } from './byHand';

	interface Props {
		onhide: (names: ReadonlySet<string> | null) => void;
		ondraws: (names: string[]) => void;
	}
	let { onhide, ondraws }: Props = $props();

	const desk = getDesk();
	/** Milliseconds that a line stands before the next: long enough to read its sum. */
	const PACE = 1800;

	let at = $state(0);
	let playing = $state(false);
	const steps = $derived(inOrder(desk.trial.preview?.sums ?? []));
	const step = $derived(steps[Math.min(at, steps.length - 1)]);
	const drawn = $derived(settledBy(desk.trial.pieces, steps, at));

	$effect(() => {
		onhide(hiddenAt(desk.trial.pieces, steps, at));
		ondraws(step?.draws ?? []);
	});
	$effect(() => {
		if (!playing) return;
		const timer = setInterval(() => {
			if (at < steps.length - 1) at += 1;
			else playing = false;
		}, PACE);
		return () => clearInterval(timer);
	});
	onDestroy(() => {
		onhide(null);
		ondraws([]);
	});

	function go(to: number): void {
		playing = false;
		at = Math.max(0, Math.min(to, steps.length - 1));
	}

	function play(): void {
		if (at >= steps.length - 1) at = 0;
		playing = !playing;
	}

	const value = $derived(
		step
			? step.unit === 'cm'
				? `${show(step.value, reading.unit)} ${reading.unit}`
				: `${Math.round(step.value * 1000) / 1000}${step.unit}`
			: '',
	);
</script>

{#if step}
	<div class="deeds">
		<button class="button small" onclick={() => go(at - 1)} disabled={at === 0} aria-label="The line before"
			><ChevronLeft size={18} /></button
		>
		<button class="button small" onclick={play} aria-label={playing ? 'Stop' : 'Draw on by itself'}>
			{#if playing}<Pause size={18} />{:else}<Play size={18} />{/if}
		</button>
		<button
			class="button small"
			onclick={() => go(at + 1)}
			disabled={at >= steps.length - 1}
			aria-label="The next line"><ChevronRight size={18} /></button
		>
		<input
			type="range"
			min="0"
			max={steps.length - 1}
			value={at}
			oninput={(e) => go(Number(e.currentTarget.value))}
			aria-label="Where the drawing stands"
		/>
		<span class="figures">{at + 1} of {steps.length}</span>
	</div>
	<section aria-live="polite" data-step={step.symbol}>
		<p class="soft">{step.group.replace(/^\d /, '')}</p>
		<h2>{step.label}</h2>
		<p class="value figures">{value}</p>
		{#if step.worked}<p class="figures">{spoken(step.worked)}</p>{/if}
		{#if step.written && !step.worked}<p class="figures">{spoken(step.written)}</p>{/if}
		{#if step.condition}<p>Found so that {spoken(step.condition)}.</p>{/if}
		{#if step.reason}<p class="soft">{spoken(step.reason)}</p>{/if}
		{#if drawn.length}
			<p><strong>Now draw:</strong> {drawn.map(lineName).join(', ')}.</p>
		{:else if step.draws.length}
			<p class="soft">It bears on: {step.draws.map(lineName).join(', ')}.</p>
		{:else}
			<p class="soft">Nothing is drawn yet; a later sum reads it.</p>
		{/if}
	</section>
{/if}

<style>
	.deeds {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		padding: 0.3rem;
	}
	input {
		flex: 1;
		min-width: 0;
		accent-color: var(--chalk);
	}
	section {
		padding: 0.6rem 0.4rem;
	}
	h2 {
		font-size: 1.3rem;
		margin: 0;
	}
	p {
		margin: 0.3rem 0;
	}
	.value {
		font-size: 1.6rem;
		font-weight: 600;
	}
</style>
