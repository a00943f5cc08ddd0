<!-- The cloths of a garment: for each of its uses one, from the shelf or typed; what is known of it. -->
<script lang="ts">
	import { api, type Cloth, type ClothUse, type OnShelf } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { shown } from '../../lib/units.svelte';
	import ClothForm from './ClothForm.svelte';
	import { newCloth, type CutTableKept } from './cutTable.svelte';

	let { table }: { table: CutTableKept } = $props();
	const desk = getDesk();

	const shelf = desk.reads<OnShelf[]>();
	void shelf.load(api.GET('/api/cloths'));

	const levels = $derived([
		...new Set(
			desk.trial.pieces.flatMap((piece) =>
				piece.lines.map((line) => line.level).filter((level) => !level.includes('.')),
			),
		),
	]);

	function change(use: ClothUse, cloth: Cloth, by: Partial<Cloth>): void {
		void table.take(use, { ...cloth, ...by });
	}

	function fromShelf(use: ClothUse, id: string): void {
		const found = shelf.value?.find((one) => one.id === id);
		if (found) void table.take(use, found.cloth);
	}

	async function putOnShelf(cloth: Cloth): Promise<void> {
		if (await desk.ask(api.POST('/api/cloths', { body: cloth }))) await shelf.load(api.GET('/api/cloths'));
	}

	async function offShelf(id: string): Promise<void> {
		await desk.ask(api.DELETE('/api/cloths/{cloth_id}', { params: { path: { cloth_id: id } } }));
		await shelf.load(api.GET('/api/cloths'));
	}
</script>

{#each table.value?.uses ?? [] as one (one.use)}
	{@const cloth = table.value?.kept.cloths?.[one.use]}
	<section aria-label={one.title}>
		<h2>{one.title[0]!.toUpperCase() + one.title.slice(1)}</h2>
		<p class="soft">{one.rows.map((row) => `${row.title} ×${row.number}`).join(', ')}</p>
		<div class="row">
			<label>
				<span class="soft">From the shelf</span>
				<select
					class="field"
					value=""
					disabled={desk.deeds.busy || !shelf.value?.length}
					onchange={(e) => fromShelf(one.use, e.currentTarget.value)}
				>
					<option value="">{shelf.value?.length ? 'choose…' : 'nothing on it yet'}</option>
					{#each shelf.value ?? [] as kept (kept.id)}
						<option value={kept.id}>{kept.cloth.name || 'unnamed'}, {shown(kept.cloth.width)} wide</option>
					{/each}
				</select>
			</label>
			{#if cloth}
				<button class="button small" onclick={() => void putOnShelf(cloth)}>Put it on the shelf</button>
				<button class="button small" onclick={() => void table.take(one.use, null)}>Another cloth</button>
			{:else}
				<button class="button main" onclick={() => void table.take(one.use, newCloth(one.use))}>
					Type a cloth
				</button>
			{/if}
		</div>
		{#if cloth}
			<ClothForm {cloth} {levels} onchange={(by) => change(one.use, cloth, by)} />
		{/if}
	</section>
{/each}
{#if shelf.value?.length}
	<section aria-label="The shelf">
		<h2>The shelf</h2>
		<ul>
			{#each shelf.value as kept (kept.id)}
				<li>
					<span class="kept">
						{#if kept.cloth.swatch}
							<img src={`data:image/jpeg;base64,${kept.cloth.swatch}`} alt="" />
						{/if}
						{kept.cloth.name || 'unnamed'}, {shown(kept.cloth.width)} wide{kept.cloth.nap ? ', with nap' : ''}
					</span>
					<button class="button small" onclick={() => void offShelf(kept.id)}>Take it off</button>
				</li>
			{/each}
		</ul>
	</section>
{/if}

<style>
	section {
		border-bottom: 1px solid var(--rule);
		padding-bottom: 0.6rem;
	}
	h2 {
		font-size: 1.1rem;
		margin: 0.8rem 0 0.2rem;
	}
	.soft {
		margin: 0.2rem 0;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		align-items: end;
		margin: 0.4rem 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 0.5rem;
		align-items: center;
		padding: 0.25rem 0;
	}
	.kept {
		display: flex;
		gap: 0.5rem;
		align-items: center;
	}
	img {
		width: 2.2rem;
		height: 2.2rem;
		object-fit: cover;
	}
</style>
