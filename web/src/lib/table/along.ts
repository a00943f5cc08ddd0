/** Places along lines as they are drawn: which lies nearest to a point, and where a share of the way lies. */
import type { Pair } from './view';

/** Return how far a line of points lies from a point, how far along it the nearest place is, and how long it is. */
export function nearest(points: readonly Pair[], at: Pair): { far: number; along: number; long: number } {
	let long = 0;
	let best = { far: Infinity, along: 0 };
	points.slice(1).forEach((b, i) => {
		const a = points[i]!;
		const stretch = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1e-9;
		const t = Math.min(
			Math.max(((at[0] - a[0]) * (b[0] - a[0]) + (at[1] - a[1]) * (b[1] - a[1])) / (stretch * stretch), 0),
			1,
		);
		const far = Math.hypot(a[0] + (b[0] - a[0]) * t - at[0], a[1] + (b[1] - a[1]) * t - at[1]);
		if (far < best.far) best = { far, along: long + t * stretch };
		long += stretch;
	});
	return { ...best, long };
}

/** Return how far along lines that follow on each other (0…1) the place nearest to a point lies. */
export function shareNear(lines: readonly Pair[][], at: Pair): number {
	let gone = 0;
	let best = { far: Infinity, along: 0 };
	for (const line of lines) {
		const { far, along, long } = nearest(line, at);
		if (far < best.far) best = { far, along: gone + along };
		gone += long;
	}
	return gone ? best.along / gone : 0.5;
}

/** Return the place that lies so far along lines that follow on each other (0…1), or null where there are none. */
export function placeAt(lines: readonly Pair[][], share: number): Pair | null {
	const whole = lines.reduce((sum, line) => sum + nearest(line, [0, 0]).long, 0);
	let left = whole * Math.min(Math.max(share, 0), 1);
	for (const line of lines)
		for (let i = 1; i < line.length; i++) {
			const [a, b] = [line[i - 1]!, line[i]!];
			const stretch = Math.hypot(b[0] - a[0], b[1] - a[1]);
			if (left <= stretch) {
				const t = stretch ? left / stretch : 0;
				return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
			}
			left -= stretch;
		}
	return lines.at(-1)?.at(-1) ?? null;
}
