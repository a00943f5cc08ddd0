<!-- Sheets in and out: a file or a scan onto the sheet, blank and filled sheets onto paper. -->
<script lang="ts">
	import { answered, api, asProblem, type Problem, type SheetRead, type Size } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import SizeChoice from '../../lib/parts/SizeChoice.svelte';
	import type { Unit } from '../../lib/units.svelte';
	import type { SheetTaking } from './sheet.svelte';

	interface Props {
		sheet: SheetTaking;
		/** The newest kept sheet's number in the store, for its files; null without one. */
		kept: { id: number; number: number } | null;
		onbrought: () => void;
	}
	let { sheet, kept, onbrought }: Props = $props();

	let file = $state<File | null>(null);
	let asksUnit = $state(false);
	let read = $state.raw<SheetRead | null>(null);
	let problem = $state<Problem | null>(null);
	let size = $state<Size | null>(null);
	let seed = $state(1);

	async function readFile(unit?: Unit): Promise<void> {
		if (!file) return;
		const body = new FormData();
		body.append('file', file);
		asksUnit = false;
		problem = null;
		read = null;
		try {
			read = await answered(
				api.POST('/api/measures/read', {
					params: { query: unit ? { unit } : {} },
					body: body as never,
					bodySerializer: (form) => form as never,
				}),
			);
		} catch (error) {
			const found = asProblem(error);
			if (found.code === 'unit-not-stated') asksUnit = true;
			else problem = found;
		}
	}

	function choose(event: Event & { currentTarget: HTMLInputElement }): void {
		file = event.currentTarget.files?.[0] ?? null;
		event.currentTarget.value = '';
		void readFile();
	}

	async function scan(): Promise<void> {
		if (!size) return;
		problem = null;
		try {
			const scanned = await answered(api.POST('/api/scans', { body: { size, seed } }));
			seed += 1;
			file = new File([scanned.file], 'scan.izett-scan.json', { type: 'application/json' });
			await readFile();
		} catch (error) {
			problem = asProblem(error);
		}
	}

	function put(): void {
		if (!read) return;
		sheet.bring(read.sheet);
		read = null;
		file = null;
		onbrought();
	}

	const brought = $derived(Object.entries(read?.sheet.readings ?? {}));
</script>

<div class="in-out">
	<section>
		<h2>Bring measures in</h2>
		<p class="soft">
			CSV as a spreadsheet writes it (measure and reading in each row), an izett-measures file, or what a
			scanner delivers. Nothing is kept until you keep the sheet.
		</p>
		<label class="button">
			Choose a file
			<input
				type="file"
				accept=".csv,.json,.txt,text/csv,application/json"
				class="sr-only"
				onchange={choose}
			/>
		</label>
		<h2>The simulated scanner</h2>
		<p class="soft">
			A stand-in for a body scanner: it scans a body of a size chart and delivers a file with its noise
			stated, 2 to 6 mm by kind of measure.
		</p>
		<SizeChoice onchoose={(chosen) => (size = chosen)} />
		<button class="button" disabled={!size} onclick={scan}>Scan</button>
		<h2>On paper</h2>
		<p>
			To fill by hand: <a href="/api/measures/sheet.pdf?paper=a4" download>A4</a>
			<a href="/api/measures/sheet.pdf?paper=letter" download>Letter</a>
		</p>
		{#if kept}
			<p>
				Sheet {kept.number}, filled:
				<a href="/api/sheets/{kept.id}/files/pdf?paper=a4" download>A4</a>
				<a href="/api/sheets/{kept.id}/files/pdf?paper=letter" download>Letter</a>; as a file:
				<a href="/api/sheets/{kept.id}/files/csv" download>CSV</a>
				<a href="/api/sheets/{kept.id}/files/json" download>JSON</a>
			</p>
		{/if}
	</section>
	<section aria-live="polite" aria-label="What was read">
		{#if problem}<ProblemNote {problem} />{/if}
		{#if asksUnit}
			<div class="note">
				<p><strong>{file?.name}</strong> does not say what its lengths are in.</p>
				<button class="button small main" onclick={() => readFile('cm')}>They are centimetres</button>
				<button class="button small main" onclick={() => readFile('in')}>They are inches</button>
			</div>
		{/if}
		{#if read}
			<h2>{brought.length} measures in {file?.name}</h2>
			{#each read.left_out as line (line)}<p class="odd">{line}</p>{/each}
			<table class="figures">
				<tbody>
					{#each brought as [key, taken] (key)}
						<tr>
							<td
								>{shelf.name(key.split('.')[0] ?? key)}{key.includes('.') ? `, ${key.split('.')[1]}` : ''}</td
							>
							<td>{[taken, ...(taken.again ?? [])].map((r) => r.text).join(' · ')}</td>
							<td class="soft">{sheet.text(key) ? `instead of ${sheet.text(key)} ${sheet.unit(key)}` : ''}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			<button class="button main" onclick={put}>Put them on the sheet</button>
		{/if}
	</section>
</div>

<style>
	.in-out {
		display: grid;
		grid-template-columns: 27rem 1fr;
		gap: 2rem;
		padding: 0.8rem 1.2rem;
		height: 100%;
		overflow: auto;
	}
	h2 {
		font-size: 1.15rem;
		margin: 1rem 0 0.3rem;
	}
	p {
		margin: 0 0 0.5rem;
	}
	a {
		text-decoration: underline;
		margin-right: 0.5rem;
	}
	.odd {
		color: var(--amber);
	}
	td {
		padding: 0.15rem 1rem 0.15rem 0;
		border-bottom: 1px solid var(--rule);
	}
	table {
		margin-bottom: 0.8rem;
	}
	@media (max-width: 900px) {
		.in-out {
			grid-template-columns: 1fr;
		}
	}
</style>
