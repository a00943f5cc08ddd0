/** Changes of a recipe, as functions: what is not set is the usual, or the house's. */
import type { Block, Recipe, Step } from '../api/client';

/** Return the recipe with an allowance or rule set for this job; null puts it back, a house rule too. */
export function withValue(recipe: Recipe, symbol: string, value: number | null, reason = ''): Recipe {
	const overrides = { ...recipe.overrides };
	const house = { ...recipe.house };
	const why = { ...recipe.why };
	delete why[symbol];
	if (value !== null) {
		overrides[symbol] = value;
		if (reason) why[symbol] = reason;
	} else if (symbol in overrides) delete overrides[symbol];
	else delete house[symbol];
	return { ...recipe, overrides, house, why };
}

/** Return the recipe with every allowance and rule as it usually is, house rules put aside too. */
export function asUsual(recipe: Recipe): Recipe {
	return { ...recipe, overrides: {}, house: {}, why: {} };
}

/** Return the recipe with the way of a school chosen; `measures` is the one that all blocks share. */
export function withWay(recipe: Recipe, school: string, way: string): Recipe {
	if (school === 'measures') return { ...recipe, school: way };
	return { ...recipe, schools: { ...recipe.schools, [school]: way } };
}

/** Return the blocks of a recipe, in the order of drafting. */
export function blocksOf(recipe: Recipe): string[] {
	return [recipe.block ?? 'bodice', ...(recipe.also ?? [])];
}

/** Return the recipe with other blocks; there is always one. */
export function withBlocks(recipe: Recipe, blocks: string[]): Recipe {
	const [block, ...also] = blocks;
	return block ? { ...recipe, block, also } : recipe;
}

/** Return those of some blocks that have what they stand on among them. */
export function standing(all: readonly Block[], keys: readonly string[]): string[] {
	return keys.filter((key) => {
		const bases = all.find((block) => block.key === key)?.stands_on ?? [];
		return !bases.length || bases.some((base) => keys.includes(base));
	});
}

/** Return the chosen blocks with one more: its base comes with it; what clothes the same, and stands on that, gives way. */
export function adding(all: readonly Block[], chosen: readonly string[], key: string): string[] {
	const block = all.find((other) => other.key === key);
	if (!block || chosen.includes(key)) return [...chosen];
	const based = block.stands_on.some((base) => chosen.includes(base));
	const withBase = !based && block.stands_on[0] ? adding(all, chosen, block.stands_on[0]) : [...chosen];
	const clothes = (other: string): string[] => all.find((one) => one.key === other)?.clothes ?? [];
	const kept = withBase.filter((other) => !clothes(other).some((part) => block.clothes.includes(part)));
	return standing(all, [...kept, key]);
}

/** Return the recipe with a step in place of the one of the same name, or added at the end. */
export function withStep(recipe: Recipe, step: Step): Recipe {
	const steps = recipe.steps ?? [];
	const known = steps.some((s) => s.uid === step.uid);
	return { ...recipe, steps: known ? steps.map((s) => (s.uid === step.uid ? step : s)) : [...steps, step] };
}

/** Return the recipe without a step. */
export function withoutStep(recipe: Recipe, uid: string): Recipe {
	return { ...recipe, steps: (recipe.steps ?? []).filter((s) => s.uid !== uid) };
}

/** Return the recipe with a step moved one place earlier or later; at the end it stays. */
export function withStepMoved(recipe: Recipe, uid: string, by: -1 | 1): Recipe {
	const steps = [...(recipe.steps ?? [])];
	const at = steps.findIndex((s) => s.uid === uid);
	const to = at + by;
	if (at < 0 || to < 0 || to >= steps.length) return recipe;
	[steps[at], steps[to]] = [steps[to]!, steps[at]!];
	return { ...recipe, steps };
}

/** Return a name for a new step: made once, by the page, so that a repeated deed makes no second step. */
export function newUid(): string {
	return `s${crypto.randomUUID().replaceAll('-', '').slice(0, 10)}`;
}
