/** The places of the step that is worked: the lines that they lie on, and where they lie on the table. */
import { api, type Operation, type PlaceLine, type Step } from '../api/client';
import { Loaded } from '../api/loaded.svelte';
import type { Desk } from '../desk/desk.svelte';
import { withStep } from '../desk/recipe';
import type { Place } from '../table/view';

/** A place as a step's parameters name it. */
export interface PlaceParam {
	start: string;
	end: string;
	along: string;
	fraction?: number;
}

export class Places {
	private readonly read = new Loaded<Record<string, PlaceLine>>();

	/** The lines, by the name of the field. */
	get lines(): Record<string, PlaceLine> {
		return this.read.value ?? {};
	}

	/** Read the lines of a step's places, as they are where it stands in the recipe. */
	look(desk: Desk, step: Step): void {
		if (!desk.job) return;
		const { id, sheet, recipe } = desk.job;
		const body = { sheet: sheet.id, recipe: withStep(recipe, step), uid: step.uid, job: id };
		void this.read.load(api.POST('/api/places', { body }));
	}

	clear(): void {
		this.read.clear();
	}

	/** Return where the places of a step lie. */
	of(operation: Operation, step: Step): Place[] {
		return operation.fields.flatMap((field) => {
			const place = placeIn(step, field.name);
			const line = this.lines[field.name];
			return field.kind === 'place' && place && line
				? [{ name: field.name, meaning: field.meaning, line, share: place.fraction ?? 0.5 }]
				: [];
		});
	}
}

/** Return a place of a step by its field's name. */
export function placeIn(step: Step, name: string): PlaceParam | undefined {
	return (step.params[name] as PlaceParam | null) ?? undefined;
}

/**
 * Return the lines of a step's places as one text, which changes when one of them comes to lie on another line or the
 * step is another one; empty where it has none.
 */
export function linesOf(operation: Operation, step: Step): string {
	const names = operation.fields
		.filter((field) => field.kind === 'place')
		.flatMap((field) => placeIn(step, field.name)?.along ?? []);
	return names.length ? [step.uid, ...names].join(' ') : '';
}
