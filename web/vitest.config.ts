import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [svelte()],
	// components are mounted as in a browser
	resolve: { conditions: ['browser'] },
	test: { environment: 'happy-dom', include: ['src/**/*.test.ts'] },
});
