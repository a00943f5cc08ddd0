<!-- A new ticket: whose, what, by when. -->
<script lang="ts">
	import { answered, api, asProblem, type Problem, type Size, type Wearer } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { GIVEN, shelf } from '../../lib/desk/catalogue.svelte';
	import Head from '../../lib/parts/Head.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import SizeChoice from '../../lib/parts/SizeChoice.svelte';
	import { navigate, p } from '../../router';

	const known = new Loaded<Wearer[]>();
	let added = $state<Wearer[]>([]);
	const wearers = $derived([...(known.value ?? []), ...added]);
	let chosen = $state('new');
	let name = $state('');
	let note = $state('');
	let garment = $state('');
	let due = $state('');
	let chosenSet = $state('bodice');
	const set = $derived(chosenSet === GIVEN ? undefined : shelf.set(chosenSet));
	let refused = $state<Problem | null>(null);
	const problem = $derived(refused ?? known.problem);
	let busy = $state(false);
	let size = $state<Size | null>(null);
	const people = $derived(wearers.filter((w) => !w.size));

	void known.load(api.GET('/api/wearers')).then(() => {
		if (people[0] && chosen === 'new') chosen = people[0].id;
	});

	async function theWearer(): Promise<Wearer> {
		if (chosen === 'new') return answered(api.POST('/api/wearers', { body: { name, note } }));
		if (chosen === 'size' && size) return answered(api.POST('/api/sizes/take', { body: size }));
		return wearers.find((w) => w.id === chosen)!;
	}

	async function write(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		busy = true;
		try {
			const wearer = await theWearer();
			chosen = wearer.id;
			if (!wearers.some((w) => w.id === wearer.id)) added = [...added, wearer];
			if (!wearer.newest) {
				const search = { garment, due, set: chosenSet };
				await navigate('/wearers/:wearer/measure', { params: { wearer: wearer.id }, search });
				return;
			}
			const beginning = shelf.beginning(chosenSet);
			if (!beginning) return;
			const { blocks, fit, cloth } = beginning;
			const job = await answered(
				api.POST('/api/jobs', {
					body: { wearer: wearer.id, garment, due: due || null, blocks, fit, cloth },
				}),
			);
			await navigate(set ? '/jobs/:job/draft' : '/jobs/:job/drape', { params: { job: job.id } });
		} catch (error) {
			refused = asProblem(error);
		} finally {
			busy = false;
		}
	}
</script>

<svelte:head><title>New ticket · Izett</title></svelte:head>
<Head />
<main>
	<h1>A new ticket</h1>
	{#if problem}<ProblemNote {problem} />{/if}
	<form class="sheet" onsubmit={write}>
		<label for="wearer">For whom</label>
		<select id="wearer" class="field" bind:value={chosen}>
			{#each people as wearer (wearer.id)}
				<option value={wearer.id}>{wearer.name}{wearer.newest ? '' : ' (not measured yet)'}</option>
			{/each}
			<option value="new">Someone new…</option>
			<option value="size">A standard size…</option>
		</select>
		{#if chosen === 'size'}
			<span></span>
			<div>
				<SizeChoice onchoose={(found) => (size = found)} />
				<a class="charts" href={p('/sizes')}>All size charts, and your own</a>
			</div>
		{/if}
		{#if chosen === 'new'}
			<label for="name">Name</label>
			<input id="name" class="field" bind:value={name} required maxlength="120" autocomplete="off" />
			<label for="note">To remember</label>
			<textarea
				id="note"
				class="field"
				rows="2"
				bind:value={note}
				placeholder="how the garment will be used, what matters"></textarea>
		{/if}
		<label for="set">Blocks</label>
		<div>
			<select id="set" class="field" bind:value={chosenSet}>
				{#each shelf.all?.sets ?? [] as choice (choice.key)}
					<option value={choice.key}>{choice.title}</option>
				{/each}
				<option value={GIVEN}>None: draped, wrapped or traced</option>
			</select>
			{#if !set}
				<p class="soft">
					The pieces come from muslin on the form, from a wrap or from paper. A block can be drafted beside
					them later.
				</p>
			{:else}
				<p class="soft">
					{set.reason} Drafted {set.fit}{set.cloth.kind === 'woven'
						? ', in woven cloth'
						: `, in a ${set.cloth.kind} of ${set.cloth.stretch} % stretch`}. All of it can be changed later.
				</p>
			{/if}
		</div>
		<label for="garment">Garment</label>
		<input
			id="garment"
			class="field"
			bind:value={garment}
			required
			maxlength="120"
			placeholder="fitted bodice"
			autocomplete="off"
		/>
		<label for="due">Due</label>
		<input id="due" class="field" type="date" bind:value={due} />
		<span></span>
		<div class="deeds">
			<button class="button main" disabled={busy}>
				{chosen === 'size' || wearers.find((w) => w.id === chosen)?.newest
					? set
						? 'Draft it'
						: 'Open it'
					: 'On to measuring'}
			</button>
			<a class="button" href={p('/')}>Back</a>
		</div>
	</form>
</main>

<style>
	main {
		max-width: 44rem;
		margin: 0 auto;
		padding: 1.6rem 1.2rem;
	}
	h1 {
		font-size: 1.9rem;
	}
	form {
		display: grid;
		grid-template-columns: 9rem 1fr;
		gap: 0.9rem 1rem;
		align-items: center;
		padding: 1.6rem;
		margin-top: 1rem;
	}
	.soft {
		margin: 0.3rem 0 0;
	}
	.charts {
		text-decoration: underline;
	}
	.deeds {
		display: flex;
		gap: 0.6rem;
	}
</style>
