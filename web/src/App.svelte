<script lang="ts">
	import { Router } from 'sv-router';
	import './router';
	import KeySheet from './lib/parts/KeySheet.svelte';
	import { shelf } from './lib/desk/catalogue.svelte';

	void shelf.load();
</script>

<Router />
<KeySheet />
