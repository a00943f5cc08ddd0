<!-- Deleting a wearer with everything that belongs to them. -->
<script lang="ts">
	import { api, type Answer } from '../../lib/api/client';
	import DeleteForGood from '../../lib/parts/DeleteForGood.svelte';
	import { store } from '../../lib/store';
	import { navigate } from '../../router';

	interface Props {
		wearer: string;
		name: string;
		/** Called before it is done: what is deleted is not to be asked about. */
		onremove: () => void;
	}
	let { wearer, name, onremove }: Props = $props();

	function remove(): Promise<Answer<unknown>> {
		onremove();
		return api.DELETE('/api/wearers/{wearer_id}', { params: { path: { wearer_id: wearer } } });
	}

	async function done(): Promise<void> {
		store.drop(`izett-sheet-${wearer}`);
		await navigate('/');
	}
</script>

<DeleteForGood what={`everything of ${name}`} ask={`Delete ${name}…`} {remove} ondone={done}>
	All sheets of measures, all jobs with their muslins, findings and story go with them, overwritten on the
	disk. Nothing of it can be brought back, unless you have carried a job out as a file. Backups that were made
	before still have it: delete those by hand.
</DeleteForGood>
