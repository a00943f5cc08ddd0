"""Make a piece ready: what it is cut from, how many are cut, whether it may lie at any angle, words for its label.

A cuff may be cut of a second cloth, a pocket of lining, a facing twice. What has no grain to obey (a pocket of felt, a
small patch) may lie at any angle in the lay plan. A piece on the fold that is cut on the bias, or across, is cut
whole: no fold lies so. No shape changes. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from math import radians
from typing import Literal

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.motion import Motion
from izett.geometry.point import Point, between
from izett.pattern.document import Ready
from izett.pattern.facts import Lie
from izett.pattern.halves import origin
from izett.pattern.naming import readable
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, count
from izett.styling.references import Params, PieceRef
from izett.styling.subject import Kind, Subject

#: By how many degrees the grain is turned from how it was drafted, and in words.
TURNS = {Lie.STRAIGHT: 0.0, Lie.BIAS: -45.0, Lie.ACROSS: -90.0}
LIES = {Lie.STRAIGHT: "", Lie.BIAS: "on the bias", Lie.ACROSS: "across the grain"}


class ReadyPiece(Params):
    """Which pieces, and what is said of them."""

    pieces: tuple[PieceRef, ...] = Field(min_length=1, max_length=20, description="the pieces")
    cloth: Literal["", "outer", "contrast", "lining", "interfacing", "strength"] = Field(
        "", description="what it is cut from; empty for what its layer asks for"
    )
    cut: int = count(0, low=0, high=40, meaning="how many are cut; 0 for as many as the block has")
    free: bool = Field(False, description="may lie at any angle to the grain")
    says: str = Field("", max_length=60, description="words for its label")
    whole: bool = Field(False, description="put on paper whole, where half of it was drawn")
    lie: Lie = Field(Lie.STRAIGHT, description="how the grain runs: as drafted, on the bias, across")


def apply(params: ReadyPiece, context: Context) -> Outcome:
    """Note on the garment what is said of the pieces."""
    pieces = [context.piece(str(name)) for name in params.pieces]
    for piece in pieces:
        if params.cut and piece.on_fold is None and piece.cut % 2 == 0 and params.cut % 2:
            raise StepRefused(
                f"{piece.title} is cut in pairs: {params.cut} leaves one without its other half.",
                fix="Cut an even number of it.",
                where=(piece.name,),
            )
    now = context.garment.allowances
    said = Ready(params.cloth, params.cut, params.free, params.says.strip(), params.whole)
    ready = {**now.pieces, **{origin(piece.name).name: said for piece in pieces}}
    told = tuple(Sum(f"{piece.title}, cut", float(params.cut or piece.cut), "") for piece in pieces)
    garment = context.garment.cut_for(replace(now, pieces=ready))
    for piece in pieces:
        if piece.lie is not params.lie:
            grain = _turned(piece.grain, TURNS[params.lie] - TURNS[piece.lie])
            garment = garment.with_pieces(replace(piece, grain=grain, lie=params.lie))
    return Outcome(garment, told)


def _turned(grain: tuple[Point, Point], by: float) -> tuple[Point, Point]:
    """Return a grain line turned about its middle by degrees."""
    turn = Motion.turning(radians(by), about=between(*grain, 0.5))
    return turn(grain[0]), turn(grain[1])


def describe(params: ReadyPiece) -> str:
    """Return the step in the maker's words."""
    said = [
        f"of the {params.cloth} cloth" if params.cloth else "",
        f"cut {params.cut}" if params.cut else "",
        "free of the grain" if params.free else "",
        LIES[params.lie],
        "whole on paper" if params.whole else "",
        f"“{params.says.strip()}”" if params.says.strip() else "",
    ]
    return f"{', '.join(readable(str(name)) for name in params.pieces)}: {', '.join(filter(None, said)) or 'as usual'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer it on a piece that is pointed at."""
    if subject.kind is Kind.PIECE and subject.piece is not None:
        yield Offer("Say what it is cut from, and how many", {"pieces": [subject.piece.name], "cloth": "contrast"})


OPERATION = Operation(
    key="ready_piece",
    title="Make a piece ready",
    params=ReadyPiece,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FINISH,),
    examples=(
        {"pieces": ("bodice_front",), "cloth": "contrast", "says": "check the match at the waist"},
        {"pieces": ("bodice_back",), "cut": 4, "free": True},
        {"pieces": ("bodice_front",), "whole": True, "lie": "bias"},
    ),
)
