/** What does not agree, and what of it is new. */
import type { Check } from '../api/client';

/** Return what does not hold, or is odd. */
export function oddOf(checks: readonly Check[] | undefined): Check[] {
	return (checks ?? []).filter((check) => check.verdict === 'fails' || check.verdict === 'warns');
}

/** Return what did not hold before and does not hold now in the same place count as one; what is new is returned. */
export function newlyOdd(before: readonly Check[] | undefined, after: readonly Check[] | undefined): Check[] {
	const known = new Set(oddOf(before).map(identity));
	return oddOf(after).filter((check) => !known.has(identity(check)));
}

function identity(check: Check): string {
	return JSON.stringify([check.check, check.aspect, check.half, check.where]);
}
