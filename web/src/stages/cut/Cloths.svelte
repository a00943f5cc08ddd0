<!-- The cloths of a garment: for each of its uses one, from the shelf or typed; what is known of it. -->
<script lang="ts">
	import { api, type Cloth, type ClothUse, type OnShelf } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { shown } from '../../lib/units.svelte';
	import { newCloth, type CutTableKept } from './cutTable.svelte';
	import { FOLDS } from './words';

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

	function pair(was: readonly number[], at: 0 | 1, value: number): [number, number] {
		return at === 0 ? [value, was[1]!] : [was[0]!, value];
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
			<label class="line">
				<span>Name</span>
				<input
					class="field"
					value={cloth.name}
					maxlength="120"
					onchange={(e) => change(one.use, cloth, { name: e.currentTarget.value })}
				/>
			</label>
			<NumberField
				label="Width, selvedge to selvedge"
				value={cloth.width}
				unit="cm"
				low={10}
				high={400}
				onvalue={(width) => change(one.use, cloth, { width })}
			/>
			<NumberField
				label="Not used at each edge"
				value={cloth.selvedge}
				unit="cm"
				low={0}
				high={20}
				onvalue={(selvedge) => change(one.use, cloth, { selvedge })}
			/>
			<label class="line">
				<span>Folded</span>
				<select
					class="field"
					value={cloth.fold}
					onchange={(e) => change(one.use, cloth, { fold: e.currentTarget.value as Cloth['fold'] })}
				>
					{#each FOLDS as [value, words] (value)}<option {value}>{words}</option>{/each}
				</select>
			</label>
			<label class="tick">
				<input
					type="checkbox"
					checked={cloth.nap}
					onchange={(e) => change(one.use, cloth, { nap: e.currentTarget.checked })}
				/>
				Nap, pile, or a print that runs one way
			</label>
			<label class="tick">
				<input
					type="checkbox"
					checked={cloth.grainless}
					onchange={(e) => change(one.use, cloth, { grainless: e.currentTarget.checked })}
				/>
				No grain at all (felt, fused interfacing)
			</label>
			<details open={!!(cloth.repeat[0] || cloth.repeat[1])}>
				<summary>Stripes and checks</summary>
				<NumberField
					label="Repeat across the cloth"
					value={cloth.repeat[0]!}
					unit="cm"
					low={0}
					high={400}
					onvalue={(value) => change(one.use, cloth, { repeat: pair(cloth.repeat, 0, value) })}
				/>
				<NumberField
					label="Repeat along the cloth"
					value={cloth.repeat[1]!}
					unit="cm"
					low={0}
					high={500}
					onvalue={(value) => change(one.use, cloth, { repeat: pair(cloth.repeat, 1, value) })}
				/>
				<label class="line">
					<span>Matched at the level</span>
					<select
						class="field"
						value={cloth.match}
						onchange={(e) => change(one.use, cloth, { match: e.currentTarget.value })}
					>
						<option value="">none</option>
						{#each levels as level (level)}<option value={level}>{level}</option>{/each}
					</select>
				</label>
			</details>
			<details>
				<summary>Stretch, shrinkage, price, and what is at hand</summary>
				{#each [['along the warp', 0], ['along the weft', 1]] as const as [way, at] (at)}
					<NumberField
						label="Shrinkage {way}"
						value={cloth.shrinkage[at]! * 100}
						unit="%"
						low={0}
						high={30}
						onvalue={(value) => change(one.use, cloth, { shrinkage: pair(cloth.shrinkage, at, value / 100) })}
					/>
					<NumberField
						label="Stretch {way}"
						value={cloth.stretch[at]! * 100}
						unit="%"
						low={0}
						high={400}
						onvalue={(value) => change(one.use, cloth, { stretch: pair(cloth.stretch, at, value / 100) })}
					/>
				{/each}
				<label class="tick">
					<input
						type="checkbox"
						checked={cloth.washed}
						onchange={(e) => change(one.use, cloth, { washed: e.currentTarget.checked })}
					/>
					Washed before it is cut
				</label>
				<NumberField
					label="Springs back"
					value={cloth.recovery * 100}
					unit="%"
					low={0}
					high={100}
					onvalue={(value) => change(one.use, cloth, { recovery: value / 100 })}
				/>
				<NumberField
					label="Weight"
					value={cloth.weight}
					unit="g/m²"
					low={0}
					high={5000}
					onvalue={(weight) => change(one.use, cloth, { weight })}
				/>
				<NumberField
					label="Price of a metre"
					value={cloth.price}
					unit=""
					low={0}
					high={1000000}
					onvalue={(price) => change(one.use, cloth, { price })}
				/>
				<NumberField
					label="At hand"
					value={cloth.length ?? null}
					unit="cm"
					low={0}
					high={20000}
					onvalue={(length) => change(one.use, cloth, { length })}
					onempty={() => change(one.use, cloth, { length: null })}
				/>
				<NumberField
					label="Left free between pieces"
					value={cloth.gap}
					unit="cm"
					low={0}
					high={10}
					onvalue={(gap) => change(one.use, cloth, { gap })}
				/>
				<label class="line">
					<span>Note</span>
					<textarea
						class="field"
						rows="2"
						maxlength="2000"
						value={cloth.note}
						onchange={(e) => change(one.use, cloth, { note: e.currentTarget.value })}></textarea>
				</label>
			</details>
		{/if}
	</section>
{/each}
{#if shelf.value?.length}
	<section aria-label="The shelf">
		<h2>The shelf</h2>
		<ul>
			{#each shelf.value as kept (kept.id)}
				<li>
					<span>
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
		color: var(--ink-soft);
		font-size: 0.92rem;
		margin: 0.2rem 0;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		align-items: end;
		margin: 0.4rem 0;
	}
	.line {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0.5rem;
		align-items: center;
		padding: 0.15rem 0;
	}
	.line input,
	.line textarea {
		width: 13rem;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		padding: 0.25rem 0;
	}
	summary {
		cursor: pointer;
		padding: 0.3rem 0;
		font-weight: 600;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 0.5rem;
		align-items: center;
		padding: 0.25rem 0;
	}
</style>
