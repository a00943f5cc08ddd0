"""The garment as a fitting meets it, and what it has: facts, by which findings and remedies say where they apply.

A fact is asked of the pieces, the seams and the steps that acted, never of a block's name: a bodice that was traced has an
armhole as a drafted one has.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, NamedTuple

from izett.catalogue import catalogue
from izett.drafting.ease import Kind
from izett.pattern.document import Closure, Pattern
from izett.pattern.facts import Corner, Half, Layer, Region, Role, SeamKind, Zone
from izett.pattern.piece import Piece, opens_on
from izett.pattern.worn import is_body
from izett.recipe.evaluation import Evaluation
from izett.recipe.model import Recipe, Step


@dataclass(frozen=True)
class Fitted:
    """A garment that is fitted: its recipe, and what came of it."""

    recipe: Recipe
    evaluation: Evaluation

    @property
    def source(self) -> Pattern:
        """The source pieces of the left half, with what fittings told of this body."""
        return self.evaluation.source_of(Half.LEFT)

    @property
    def final(self) -> Pattern:
        """The finished pieces of the left half."""
        return self.evaluation.left

    def steps(self, kind: str, where: Mapping[str, Any] = MappingProxyType({})) -> Iterator[Step]:
        """Yield the steps of a kind that acted, with these parameters, its defaults counted."""
        operation = catalogue().operations[kind]
        for stage in self.evaluation.stages:
            step = stage.step
            if step.kind != kind or not step.on or stage.failure is not None or stage.follows:
                continue
            params = operation.params.model_validate(operation.upgraded(step.params, step.version))
            if all(getattr(params, name) == value for name, value in where.items()):
                yield step


class Fact(NamedTuple):
    """Something that a garment has: in words, and how it is asked."""

    words: str
    holds: Callable[[Fitted], bool]


def _blocks(pattern: Pattern, region: Region) -> list[Piece]:
    return [p for p in pattern if is_body(p) and p.region is region]


def _has_corner(pattern: Pattern, corner: Corner, zone: Zone | None = None, region: Region = Region.UPPER) -> bool:
    return any(
        piece.corner(corner) is not None for piece in _blocks(pattern, region) if zone is None or piece.zone is zone
    )


def _has_dart(pattern: Pattern, zone: Zone, role: Role, *regions: Region) -> bool:
    return any(
        opens_on(piece, dart) is role
        for region in regions
        for piece in _blocks(pattern, region)
        if piece.zone is zone
        for dart in piece.darts
    )


def _has_role(pattern: Pattern, role: Role, *regions: Region) -> bool:
    return any(e.role is role for region in regions for piece in _blocks(pattern, region) for e in piece.edges)


def _panels(fitted: Fitted, zone: Zone) -> bool:
    return any(True for _ in panel_seams(fitted.final, zone))


def panel_seams(pattern: Pattern, zone: Zone) -> Iterator[str]:
    """Yield the panel seams of the body between two pieces of a zone, the one over the bust point first."""
    found: list[tuple[bool, str]] = []
    for seam in pattern.seams_of(SeamKind.PANEL):
        pieces = [pattern.find(span.start) for side in seam.sides for span in side]
        if all(piece is not None and is_body(piece) and piece.zone is zone for piece in pieces):
            upright = all(e.role is Role.PANEL for p in pieces if p for e in p.edges if e.lineage in _lines(seam.sides))
            if upright:
                found.append((not any(piece is not None and "apex" in piece.marks for piece in pieces), seam.name))
    yield from (name for _, name in sorted(found, key=lambda one: one[0]))


def _lines(sides: Sequence[Sequence[Any]]) -> set[str]:
    return {span.along for side in sides for span in side}


def _laced(fitted: Fitted) -> bool:
    return any(opening.closure is Closure.LACING for opening in fitted.final.openings)


def _is_knit(fitted: Fitted) -> bool:
    return fitted.recipe.cloth.kind == Kind.KNIT


#: Parts of the body below the waist.
BELOW = (Region.SKIRT, Region.LEGS)
#: All that a garment can have, by name.
FACTS: Mapping[str, Fact] = MappingProxyType(
    {
        "bodice": Fact(
            "a front and a back with a shoulder and an armhole",
            lambda g: all(
                _has_corner(g.source, corner, zone)
                for corner in (Corner.SHOULDER_TIP, Corner.UNDERARM)
                for zone in (Zone.FRONT, Zone.BACK)
            ),
        ),
        "bodice waist": Fact(
            "a bodice that ends at the waist", lambda g: _has_role(g.source, Role.WAIST, Region.UPPER)
        ),
        "upper waist": Fact("a bodice that reaches the waist", lambda g: _has_corner(g.source, Corner.WAIST_SIDE)),
        "upper hip": Fact("a bodice that reaches the hip", lambda g: _has_corner(g.source, Corner.HEM_SIDE)),
        "bust dart": Fact(
            "a bust dart at the side of its block", lambda g: _has_dart(g.source, Zone.FRONT, Role.SIDE, Region.UPPER)
        ),
        "front waist dart": Fact(
            "a waist dart in front", lambda g: _has_dart(g.source, Zone.FRONT, Role.WAIST, Region.UPPER)
        ),
        "back waist dart": Fact(
            "a waist dart behind", lambda g: _has_dart(g.source, Zone.BACK, Role.WAIST, Region.UPPER)
        ),
        "shoulder dart": Fact(
            "a dart in the back shoulder", lambda g: _has_dart(g.source, Zone.BACK, Role.SHOULDER, Region.UPPER)
        ),
        "final bust dart": Fact(
            "a bust dart that is still sewn at the side",
            lambda g: _has_dart(g.final, Zone.FRONT, Role.SIDE, Region.UPPER),
        ),
        "front panel seam": Fact("a panel seam in front", lambda g: _panels(g, Zone.FRONT)),
        "back panel seam": Fact("a panel seam behind", lambda g: _panels(g, Zone.BACK)),
        "no panel seam": Fact("a front without panel seams", lambda g: not _panels(g, Zone.FRONT)),
        "centre back seam": Fact(
            "a seam at the centre back of the bodice",
            lambda g: any(
                e.role is Role.CENTRE_BACK and p.on_fold != e.lineage
                for p in _blocks(g.source, Region.UPPER)
                for e in p.edges
            ),
        ),
        "armhole": Fact("an armhole", lambda g: _has_role(g.final, Role.ARMHOLE, Region.UPPER)),
        "shoulder": Fact("a shoulder seam", lambda g: bool(g.final.seams_of(SeamKind.SHOULDER))),
        "waist seam": Fact("a waist seam", lambda g: bool(g.final.seams_of(SeamKind.WAIST))),
        "side": Fact("a side seam", lambda g: any(is_body(p) for p in g.source.with_role(Role.SIDE))),
        "sleeve": Fact("a sleeve", lambda g: bool(g.source.seams_of(SeamKind.CAP))),
        "skirt": Fact(
            "a skirt", lambda g: bool(_blocks(g.source, Region.SKIRT)) and _has_corner_below(g, Region.SKIRT)
        ),
        "trousers": Fact("trousers", lambda g: bool(_blocks(g.source, Region.LEGS))),
        "below the waist": Fact(
            "a skirt or trousers with a side seam", lambda g: any(_has_corner_below(g, region) for region in BELOW)
        ),
        "front dart below": Fact(
            "a dart in front below the waist", lambda g: _has_dart(g.source, Zone.FRONT, Role.WAIST, *BELOW)
        ),
        "back dart below": Fact(
            "a dart behind below the waist", lambda g: _has_dart(g.source, Zone.BACK, Role.WAIST, *BELOW)
        ),
        "hem": Fact("a hem around the body", lambda g: _has_role(g.final, Role.HEM, Region.UPPER, *BELOW)),
        "hip": Fact("a width at the hip", lambda g: any(p.level("hip") for p in g.final if is_body(p))),
        "knit": Fact("knit cloth", _is_knit),
        "woven": Fact("woven cloth", lambda g: not _is_knit(g)),
        "styled neckline": Fact("a neckline that was drawn by a step", lambda g: any(g.steps("change_neckline"))),
        "plain neckline": Fact(
            "the neckline of the block",
            lambda g: not any(g.steps("change_neckline")) and not any(g.steps("upper_edge")),
        ),
        "neckband": Fact("a neckband", lambda g: any(g.steps("add_band", {"kind": "neckband"}))),
        "hem band": Fact("a hem band", lambda g: any(g.steps("add_band", {"kind": "hem_band"}))),
        "cuff": Fact("a cuff", lambda g: any(g.steps("add_band", {"kind": "cuff"}))),
        "full sleeve": Fact(
            "a sleeve that was slashed and spread", lambda g: any(amended(g, "spread_piece", {}, Region.ARM))
        ),
        "puffed sleeve": Fact("a puffed sleeve", lambda g: any(g.steps("puff_sleeve"))),
        "front fullness": Fact(
            "fullness spread in front", lambda g: any(amended(g, "spread_piece", {}, Region.SKIRT, Zone.FRONT))
        ),
        "back fullness": Fact(
            "fullness spread behind", lambda g: any(amended(g, "spread_piece", {}, Region.SKIRT, Zone.BACK))
        ),
        "strapless": Fact("an upper edge without straps", lambda g: any(g.steps("upper_edge"))),
        "contoured": Fact("a panel seam that was contoured", lambda g: any(g.steps("contour"))),
        "laced": Fact("a laced opening", _laced),
        "tie": Fact("ties", lambda g: any(g.steps("add_tie"))),
        "buttons": Fact("marked button places", lambda g: any(g.steps("button_places"))),
        "lining": Fact("a lining", lambda g: any(p.layer is Layer.LINING for p in g.final)),
        "not recapped by width": Fact(
            "a sleeve that was not re-capped by its width",
            lambda g: not any(g.steps("recap_sleeve", {"by": "width", "as_meant": False})),
        ),
        "recapped": Fact("a sleeve that was re-capped by a step", lambda g: any(g.steps("recap_sleeve"))),
        "not recapped": Fact("a cap as it was drafted", lambda g: not any(g.steps("recap_sleeve"))),
    }
)


def _has_corner_below(fitted: Fitted, region: Region) -> bool:
    return _has_corner(fitted.source, Corner.WAIST_SIDE, region=region)


def lacks(fitted: Fitted, needs: Sequence[str]) -> list[str]:
    """Return in words what a garment does not have of what is needed."""
    return [FACTS[need].words for need in needs if not FACTS[need].holds(fitted)]


def amended(
    fitted: Fitted,
    kind: str,
    where: Mapping[str, Any],
    region: Region | None = None,
    zone: Zone | None = None,
) -> Iterator[Step]:
    """Yield the steps of a kind that acted on a part of the garment, found by the line that they name."""
    for step in fitted.steps(kind, where):
        piece = _acted_on(fitted, step)
        if region is not None and (piece is None or piece.region is not region):
            continue
        if zone is not None and (piece is None or piece.zone is not zone):
            continue
        yield step


def _acted_on(fitted: Fitted, step: Step) -> Piece | None:
    """Return the piece on which the first line that a step names lies."""
    lines = [value for value in step.params.values() if isinstance(value, Mapping) and "along" in value]
    lines += [
        one
        for value in step.params.values()
        if isinstance(value, list | tuple)
        for one in value
        if isinstance(one, Mapping) and "along" in one
    ]
    if not lines:
        return None
    return next(iter(fitted.final.with_lineage(lines[0]["along"])), None)
