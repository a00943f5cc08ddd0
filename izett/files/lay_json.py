"""A lay plan as an `izett-lay` file, and back: where everything lies on the cloth, in cm, x across it from its left edge."""

from collections.abc import Sequence
from typing import Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from izett.cutting.cloth import Cloth, Fold, sold
from izett.cutting.lay.bed import bed_of
from izett.cutting.lay.columns import Spot
from izett.cutting.lay.cutouts import Cutout, Section, Wanted, sections
from izett.cutting.lay.plan import Plan, in_order
from izett.errors import UnreadableFile
from izett.files.reading import read_json, wrong_in
from izett.units import Unit

#: Decimals of a centimetre that are written: far finer than outlines are.
DECIMALS = 6
#: Pieces on one plan, and corners of one outline, that are read at most.
MOST_PLACED, MOST_CORNERS = 2000, 5000

Pair = tuple[float, float]


class _Doc(BaseModel):
    model_config = ConfigDict(frozen=True)


class SectionDoc(_Doc):
    """A length of the cloth that is folded in one way; `cloth` is how much of it that takes."""

    fold: Fold
    layers: int
    width: float
    start: float = Field(alias="from")
    length: float
    cloth: float
    strips: tuple[Pair, ...]
    folds: tuple[float, ...]

    model_config = ConfigDict(frozen=True, populate_by_name=True)


class PlacedDoc(_Doc):
    """Where one cut lies; its outline as cut, of a piece on a fold its half against it."""

    piece: str = Field(max_length=200)
    copy_: int = Field(alias="copy", ge=1)
    title: str = ""
    turn: float
    flipped: bool
    on_fold: bool
    layers: int
    section: int = Field(0, ge=0)
    outline: tuple[Pair, ...] = Field(min_length=3, max_length=MOST_CORNERS)

    model_config = ConfigDict(frozen=True, populate_by_name=True)


class LayDoc(_Doc):
    """A lay plan; `bought` is rounded up to what shops sell, `decides` the piece that decides the length."""

    format: Literal["izett-lay"] = "izett-lay"
    version: Literal[1] = 1
    unit: Literal[Unit.CM] = Unit.CM
    cloth: Cloth
    fold: Fold
    length: float
    bought: float
    utilisation: float
    decides: str | None = None
    sections: tuple[SectionDoc, ...] = Field((), max_length=5)
    placed: tuple[PlacedDoc, ...] = Field(max_length=MOST_PLACED)


def lay_document(plan: Plan, *, unit: Unit = Unit.CM) -> LayDoc:
    """Return a plan as a document; `unit` is what the shop sells by."""

    def rounded(value: float) -> float:
        return round(value, DECIMALS)

    return LayDoc(
        cloth=plan.cloth,
        fold=plan.fold,
        length=rounded(plan.length),
        bought=rounded(sold(plan.bought, unit=unit)),
        utilisation=rounded(plan.utilisation),
        decides=plan.decides.cutout.piece if plan.decides else None,
        sections=tuple(
            SectionDoc(
                fold=laid.section.bed.fold,
                layers=laid.section.bed.layers,
                width=laid.section.bed.width,
                start=laid.start,
                length=laid.length,
                cloth=laid.cloth,
                strips=tuple((strip.left, strip.right) for strip in laid.section.bed.strips),
                folds=tuple(strip.fold for strip in laid.section.bed.strips if strip.fold is not None),
            )
            for laid in plan.laid
        ),
        placed=tuple(
            PlacedDoc(
                piece=one.spot.cutout.piece,
                copy_=one.spot.cutout.copy,
                title=one.spot.cutout.title,
                turn=one.turn,
                flipped=one.flipped,
                on_fold=one.spot.cutout.on_fold,
                layers=one.spot.cutout.layers,
                section=one.section,
                outline=tuple((rounded(x), rounded(y)) for x, y in one.outline.tolist()),
            )
            for one in plan.placed
        ),
    )


def write_lay(plan: Plan, *, unit: Unit = Unit.CM) -> str:
    """Return a plan as a file."""
    document = lay_document(plan, unit=unit)
    return document.model_dump_json(by_alias=True) + "\n"


def read_lay(text: str | bytes) -> LayDoc:
    """Return the document of a plan's file.

    Raises:
        UnreadableFile: it is no such file.
    """
    data = read_json(text)
    if isinstance(data, dict) and isinstance(data.get("cloth"), dict):
        # A cloth within a plan has its own head.
        own = {k: v for k, v in data["cloth"].items() if k not in ("format", "version", "unit")}
        data = {**data, "cloth": own}
    try:
        return LayDoc.model_validate(data)
    except ValidationError as error:
        wrong = wrong_in(error)
        raise UnreadableFile(
            f"This is no lay plan of Izett's: {wrong.place or 'the file'}: {wrong.words}.",
            fix="Choose an izett-lay file, version 1.",
        ) from error


class PiecesChanged(UnreadableFile):
    """A plan was laid of other pieces."""

    code = "pieces-changed"


def plan_of(document: LayDoc, wanted: Sequence[Wanted]) -> Plan:
    """Return a plan as it was laid, of the pieces that it was laid of.

    Raises:
        PiecesChanged: pieces were added, removed or changed since.
        DoesNotFit: they do not lie on its cloth any more.
    """
    parts = sections(wanted, document.cloth, document.fold)
    if len(parts) != len(document.sections):
        raise _changed()
    found: list[tuple[Section, list[Spot]]] = []
    for number, (part, doc) in enumerate(zip(parts, document.sections, strict=True)):
        meet = (doc.strips[0][1] + doc.strips[1][0]) / 2 if len(doc.strips) > 1 else None
        section = Section(bed_of(document.cloth, part.bed.fold, meet=meet), part.cutouts)
        left = {(cutout.piece, cutout.copy): cutout for cutout in section.cutouts}
        spots: list[Spot] = []
        for placed in (one for one in document.placed if one.section == number):
            cutout = left.pop((placed.piece, placed.copy_), None)
            if cutout is None:
                raise _changed()
            spots.append(_spot(placed, cutout, section, doc.start))
        if left:
            raise _changed()
        found.append((section, spots))
    return Plan(document.cloth, document.fold, in_order(found))


#: cm. An outline that differs by more is another one.
SAME = 1e-3


def _spot(placed: PlacedDoc, cutout: Cutout, section: Section, start: float) -> Spot:
    outline = np.subtract(placed.outline, (0.0, start))
    strips = section.bed.strips
    middle = float(outline[:, 0].mean())
    number = next((i for i, strip in enumerate(strips) if strip.left - 1 <= middle <= strip.right + 1), 0)
    strip = strips[number]
    turn, flipped = placed.turn, placed.flipped
    if strip.fold == strip.right:
        outline = np.add(outline * (-1.0, 1.0), (strip.right, 0.0))
        turn, flipped = (-turn) % 360, not flipped
    else:
        outline = np.subtract(outline, (strip.left, 0.0))
    pose = next((p for p in cutout.poses if (p.turn, p.flipped) == (turn, flipped)), None)
    corner = outline.min(axis=0)
    if pose is None or abs(float((outline - corner).max(axis=0)[0]) - pose.width) > SAME:
        raise _changed()
    if abs(float((outline - corner).max(axis=0)[1]) - pose.height) > SAME:
        raise _changed()
    return Spot(cutout, pose, number, float(corner[0]), float(corner[1]))


def _changed() -> PiecesChanged:
    return PiecesChanged("The pieces are not those that this plan was laid of.", fix="Lay them again.")
