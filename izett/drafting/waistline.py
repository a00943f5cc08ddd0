"""The waist line with its darts: one cubic a panel, square to the centre, to each dart leg and to the side."""

from collections.abc import Sequence
from dataclasses import dataclass

from izett.errors import DraftRefused
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.point import Point, Vector, between, distance, right_of, subtract, unit
from izett.wording import cm

#: A dart's mouth lies this share of its intake below the waist line, so that the line is smooth with the dart shut.
MOUTH_BELOW = 0.11
#: Handles: a third of the chord, the one at the end of a long last panel no longer than this (cm).
_LONGEST_LAST_HANDLE = 5.0


@dataclass(frozen=True, slots=True)
class WaistDart:
    """Where a waist dart stands: its axis, the height of its tip, and its intake at the waist."""

    x: float
    tip: float
    intake: float

    def mouth(self, waist_y: float) -> tuple[Point, Point]:
        """Return the two ends of its mouth, `waist_y` being the height of the waist line there."""
        y = waist_y - MOUTH_BELOW * self.intake
        return (self.x - self.intake / 2, y), (self.x + self.intake / 2, y)


def intakes(total: float, *, largest: float, smallest: float, at_most: int = 3) -> list[float]:
    """Return a total intake shared evenly over as few darts as `largest` allows, none under `smallest`."""
    if total < smallest:
        return []
    count = 1
    while count < at_most and total / count > largest:
        count += 1
    return [total / count] * count


def waist_panels(
    centre: Point, out_of_centre: Vector, side: Point, up_side: Vector, darts: Sequence[WaistDart]
) -> list[Curve]:
    """Return the waist line's panels from the centre to the side.

    Args:
        centre: where it leaves the centre line.
        out_of_centre: direction square to the centre line, towards the side.
        side: where it meets the side seam.
        up_side: direction up the side seam.
        darts: the waist darts from the centre outwards.
    """
    ends: list[tuple[Point, Vector]] = [(centre, out_of_centre)]
    for dart in darts:
        share = (dart.x - centre[0]) / (side[0] - centre[0])
        a, b = dart.mouth(between(centre, side, share)[1])
        tip = (dart.x, dart.tip)
        ends.append((a, right_of(unit(subtract(tip, a)))))
        ends.append((b, right_of(unit(subtract(tip, b)))))
    ends.append((side, right_of(unit(up_side))))
    panels: list[Curve] = []
    for index in range(0, len(ends), 2):
        (start, leaving), (end, arriving) = ends[index], ends[index + 1]
        handle = distance(start, end) / 3
        last = index + 2 == len(ends)
        back = (-arriving[0], -arriving[1])
        panels.append(
            joined(
                [
                    with_handles(
                        start,
                        leaving,
                        end,
                        back,
                        start_handle=handle,
                        end_handle=min(handle, _LONGEST_LAST_HANDLE) if last else handle,
                    )
                ]
            )
        )
    return panels


#: cm. A panel of the waist line between two darts is at least this wide.
NARROWEST_PANEL = 0.8


def refuse_crowded(panels: Sequence[Curve], larger: float, *, over: str, under: str) -> None:
    """Refuse a waist line whose darts leave no paper between them.

    Args:
        panels: of front and back.
        larger: by how much the girth `over` is larger than the girth `under`, cm.
        over, under: the two girths in words; their measures are to be retaken.

    Raises:
        DraftRefused: a panel is too narrow.
    """
    narrowest = min(panel.end[0] - panel.start[0] for panel in panels)
    if narrowest < NARROWEST_PANEL:
        raise DraftRefused(
            f"The waist darts leave a strip of only {cm(narrowest)} between them: the {over} is {cm(larger)} larger "
            f"than the {under}.",
            fix=f"Retake {over} and {under}; for such a shape use panels instead of darts.",
            where=(f"{under}_girth", f"{over}_girth"),
        )
