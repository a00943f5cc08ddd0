"""A lining follows its piece: no seam of it is shorter than the garment's, and at the hem it is shorter by what was meant.

A lining that is short anywhere else pulls the garment; one that is too long shows. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, Worse, tolerance
from izett.pattern.facts import Half, Layer, Role
from izett.pattern.halves import of_right, origin
from izett.pattern.naming import readable
from izett.pattern.piece import Lining, Piece
from izett.pattern.working import Readable
from izett.wording import cm


class Params(CheckParams):
    """How far a lining may be off what is meant."""

    off: float = tolerance(0.4, low=0.1, high=2, unit="cm", meaning="shorter, or at the hem longer, than meant")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each lining with the line in cm that is farthest from what is meant: negative where it is too short."""
    outer = _lengths(garment.pattern)
    for piece in garment.pattern.pieces:
        if piece.lining is None:
            continue
        found = max(_off(piece, piece.lining, outer), key=lambda one: abs(one[1]), default=None)
        if found is None:
            # The garment was cut up since: nothing is left to hold the lining against.
            yield Finding(Verdict.WARNS, (piece.name,), 0.0, params.off, aspect="alone")
            continue
        line, off = found
        if abs(off) <= params.off:
            yield Finding(Verdict.PASSES, (piece.name,), off, params.off)
        else:
            aspect, worse = ("long", Worse.MORE) if off > 0 else ("short", Worse.LESS)
            yield Finding(Verdict.FAILS, (piece.name, line), off, params.off, aspect=aspect, worse=worse)


def _lengths(pattern: Readable) -> Mapping[str, float]:
    """Return how long each line of the garment's outer layer is, over all pieces that it was cut into, as sewn."""
    found: dict[str, float] = {}
    for piece in pattern.pieces:
        if piece.layer is Layer.OUTER:
            for line, long in _on(piece).items():
                found[line] = found.get(line, 0.0) + long
    return found


def _on(piece: Piece) -> Mapping[str, float]:
    found: dict[str, float] = {}
    for edge in piece.edges:
        if not edge.is_leg and edge.role is not Role.HEM:
            found[edge.lineage] = found.get(edge.lineage, 0.0) + edge.curve.length
    return found


def _off(piece: Piece, lining: Lining, outer: Mapping[str, float]) -> Iterator[tuple[str, float]]:
    """Yield each line of a lining with how much longer it is than meant; a line above the hem may well be longer."""
    followed = dict(lining.lines)
    at_hem = {e.lineage for e in piece.edges if _meets_hem(piece, e.start) or _meets_hem(piece, e.end)}
    for line, long in _on(piece).items():
        own = origin(line)
        name = followed.get(own.name, "")
        # Where the halves differ the right one has lines of its own.
        meant = outer.get(of_right(name), outer.get(name)) if own.half is Half.RIGHT else outer.get(name)
        if meant is None:
            continue
        off = long - meant + (lining.shorter if line in at_hem else 0.0)
        yield line, off if line in at_hem else min(off, 0.0)


def _meets_hem(piece: Piece, corner: str) -> bool:
    return any(edge.role is Role.HEM and corner in (edge.start, edge.end) for edge in piece.edges)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    match finding.aspect:
        case "alone":
            return f"The {piece} has lost the piece that it follows"
        case "short":
            return f"The {piece} is {cm(-finding.amount)} too short along its {readable(finding.where[1])} line: it would pull"
        case "long":
            return f"The {piece} is {cm(finding.amount)} too long along its {readable(finding.where[1])} line: it would show"
        case _:
            return f"The {piece} follows its piece"


CHECK = Check(
    key="lining_follows",
    claim="A lining is nowhere shorter than its piece, and at the hem by what was meant",
    params=Params,
    find=find,
    word=word,
    fix="Add the lining again after the last change of the outline, or make the same change on both.",
)
