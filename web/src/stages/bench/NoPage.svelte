<!-- An address that leads nowhere. -->
<script lang="ts">
	import Head from '../../lib/parts/Head.svelte';
	import { p } from '../../router';
</script>

<Head />
<main class="p-8">
	<h1 class="text-2xl">There is nothing at this address</h1>
	<p>The job may have been deleted. Your other jobs are <a href={p('/')}>on the bench</a>.</p>
</main>
