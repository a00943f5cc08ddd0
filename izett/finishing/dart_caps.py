"""Dart caps: the peak that a dart needs at its mouth, so that its fold is caught in the seam.

By hand: fold the dart shut, run the seam line across, unfold. In geometry: the neighbouring seam line, mirrored
over the leg, runs to the fold line.
"""

from izett.geometry.point import (
    Point,
    add,
    between,
    distance,
    dot,
    meeting,
    right_of,
    scale,
    subtract,
    unit,
)
from izett.pattern.facts import Half
from izett.pattern.halves import origin
from izett.pattern.piece import Intake, Piece

#: A cap is never longer than this share of the mouth: on a very flat dart the fold would shoot out.
LONGEST_PEAK = 0.9


def cap_peak(piece: Piece, dart: Intake) -> Point:
    """Return the point of a dart's cap, beyond the middle of its mouth.

    A dart is pressed towards its first neighbour in ring order: waist darts towards the centre, bust darts down. Both come
    first when the ring is walked from the centre over the waist up the side; on a half that was turned over, last. Common
    practice, no single source.
    """
    a, b = (piece.vertex(name) for name in dart.mouth)
    tip = piece.vertex(dart.tip)
    middle = between(a, b, 0.5)
    if distance(a, b) == 0.0:
        return a
    # The bisector is square to the mouth: with a flat dart, tip and middle can be too close to give it.
    outwards = right_of(unit(subtract(b, a)))
    if origin(dart.name).half is Half.RIGHT:
        neighbour = next(edge for edge in piece.edges if edge.start == dart.mouth[1])
        corner, into_piece = b, neighbour.curve.start_direction
    else:
        neighbour = next(edge for edge in piece.edges if edge.end == dart.mouth[0])
        corner, into_piece = a, scale(neighbour.curve.end_direction, -1.0)
    leg = unit(subtract(corner, tip))
    along = dot(into_piece, leg)
    mirrored = subtract(scale(leg, 2 * along), into_piece)
    found = meeting(corner, mirrored, middle, outwards)
    longest = LONGEST_PEAK * distance(a, b)
    height = found[1] if found is not None and found[0] > 0 else 0.0
    return add(middle, scale(outwards, min(max(height, 0.0), longest)))
