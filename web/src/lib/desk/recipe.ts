/** Changes of a recipe, as functions: what is not set is the usual, or the house's. */
import type { Block, Half, Recipe, Section, Step, Worked } from '../api/client';

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
	return [recipe.block ?? 'bodice', ...(recipe.also ?? [])].filter(Boolean);
}

/** Return the recipe with other blocks; none are needed where pieces were given. */
export function withBlocks(recipe: Recipe, blocks: string[]): Recipe {
	const [block = '', ...also] = blocks;
	return block || recipe.given.panels.length ? { ...recipe, block, also } : recipe;
}

/** Return the recipe with the halves drafted apart by a measure, or alike. */
export function withApart(recipe: Recipe, symbol: string, on: boolean): Recipe {
	const others = recipe.apart.filter((other) => other !== symbol);
	return { ...recipe, apart: on ? [...others, symbol] : others };
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

/** Return the recipe with steps added at its end. */
export function withSteps(recipe: Recipe, steps: readonly Step[]): Recipe {
	return { ...recipe, steps: [...recipe.steps, ...steps] };
}

/**
 * Return the recipe with what a remedy does: steps of the style as it amends them, and its own added at the end, in place
 * of those that the finding's remedy before it had added.
 */
export function withRemedy(
	recipe: Recipe,
	remedy: Pick<Worked, 'steps' | 'amends'>,
	instead: readonly string[] = [],
): Recipe {
	const without = instead.reduce(withoutStep, recipe);
	const amended = remedy.amends.reduce((now, { step }) => withStep(now, step), without);
	return withSteps(amended, remedy.steps);
}

/** Return the recipe without a step. */
export function withoutStep(recipe: Recipe, uid: string): Recipe {
	return { ...recipe, steps: (recipe.steps ?? []).filter((s) => s.uid !== uid) };
}

/**
 * Return the recipe with a step put before or after another one, its neighbour in its section: the order counts within
 * a section only.
 */
export function withStepBeside(
	recipe: Recipe,
	uid: string,
	beside: string,
	where: 'before' | 'after',
): Recipe {
	const step = (recipe.steps ?? []).find((s) => s.uid === uid);
	const steps = (recipe.steps ?? []).filter((s) => s.uid !== uid);
	const at = steps.findIndex((s) => s.uid === beside);
	if (!step || at < 0) return recipe;
	steps.splice(where === 'before' ? at : at + 1, 0, step);
	return { ...recipe, steps };
}

/** Return the recipe with a step standing in another section. */
export function withSection(recipe: Recipe, uid: string, section: Section): Recipe {
	return { ...recipe, steps: (recipe.steps ?? []).map((s) => (s.uid === uid ? { ...s, section } : s)) };
}

/** Return a step of a kind, new, acting, for both halves unless it is said which. */
export function newStep(
	kind: string,
	params: Record<string, unknown>,
	about: { version?: number; half?: Half; why?: string; uid?: string } = {},
): Step {
	const { version = 1, half = 'both', why = '', uid = newUid() } = about;
	return { uid, kind, params, on: true, version, why, section: null, half };
}

/** The step that holds the seam allowances, and what it says. */
export const ALLOWANCES = 'set_allowances';

export interface Cutting {
	purpose: string;
	lines: { line: string; width: number }[];
}

function cuttingStep(recipe: Recipe | null | undefined): Step | undefined {
	return (recipe?.steps ?? []).filter((s) => s.kind === ALLOWANCES && s.on).at(-1);
}

/**
 * Return what a recipe says of its seam allowances: the last step of that kind that acts counts. What it is cut for where
 * nothing says so is the core's to know.
 */
export function cuttingOf(recipe: Recipe | null | undefined, usual: string): Cutting {
	const step = cuttingStep(recipe);
	const { purpose = usual, lines = [] } = (step?.params ?? {}) as Partial<Cutting>;
	return { purpose, lines };
}

/** Return the recipe with its seam allowances changed: one step of it. */
export function withCutting(recipe: Recipe, usual: string, change: (cutting: Cutting) => Cutting): Recipe {
	const step = cuttingStep(recipe) ?? newStep(ALLOWANCES, {});
	return withStep(recipe, { ...step, params: { ...change(cuttingOf(recipe, usual)) } });
}

/** Return a name for a new step: made once, by the page, so that a repeated deed makes no second step. */
export function newUid(): string {
	return `s${crypto.randomUUID().replaceAll('-', '').slice(0, 10)}`;
}
