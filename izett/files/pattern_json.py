"""The pattern as open JSON: `izett-pattern`, version 1; its JSON Schema lies in docs/formats.

Floats are written in their shortest exact form, so reading back gives the identical pattern.
"""

import json
from collections.abc import Mapping
from types import MappingProxyType
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from izett.checking.check import Result
from izett.errors import UnreadableFile
from izett.finishing.allowances import Allowances
from izett.geometry.curve import Curve
from izett.pattern import document as d
from izett.pattern.facts import Role
from izett.pattern.sewn import seam_lengths
from izett.recipe.evaluator import Evaluation

FORMAT: Literal["izett-pattern"] = "izett-pattern"
VERSION: Literal[1] = 1

Number = Annotated[float, Field(allow_inf_nan=False)]
Spot = tuple[Number, Number]


class _Document(BaseModel):
    model_config = ConfigDict(populate_by_name=True, extra="ignore")


class ClothDoc(_Document):
    """The cloth that the garment is meant for."""

    kind: str = "woven"
    stretch: Number = 0.0


class EdgeDoc(_Document):
    """An edge: 2 points where straight, else 3n + 1 control points of n joined cubics."""

    role: Role
    lineage: str
    start: str = Field(alias="from")
    end: str = Field(alias="to")
    curve: list[Spot] = Field(min_length=2)
    allowance: Number = 0.0


class DartDoc(_Document):
    """A dart; `pivot` is the point about which it closes, `tip` the drawn one."""

    name: str
    family: str
    form: d.Form = d.Form.EDGE
    sewn: bool = True
    pivot: Spot
    tip: Spot
    tip_vertex: str
    set_back: Number
    mouth: tuple[str, str]
    bow: Number = 0.0


class DiamondDoc(_Document):
    """A dart within the piece: its two tips, and where it is widest."""

    name: str
    family: str
    top: Spot
    bottom: Spot
    left: Spot
    right: Spot


class SpanDoc(_Document):
    """A stretch along edges of one lineage, darts on the way shut."""

    piece: str = ""
    start: str = Field(alias="from")
    end: str = Field(alias="to")
    along: str


class IntentDoc(_Document):
    """Fit, cloth, the ease meant at each level (cm, total around), and the spans along which some are measured."""

    fit: str = "fitted"
    cloth: ClothDoc = ClothDoc()
    ease: dict[str, Number] = {}
    along: dict[str, list[SpanDoc]] = {}


class NotchDoc(SpanDoc):
    """A notch, `distance` cm as sewn from the start of its span."""

    distance: Number
    kind: d.NotchKind


class LineDoc(_Document):
    """A level line, in as many parts as the paper was cut into."""

    level: str
    points: list[Spot] = Field(min_length=2)


class PieceDoc(_Document):
    """A piece: its ring of edges in counter-clockwise order, and what lies on it."""

    name: str
    title: str
    part: str
    cut: int
    on_fold: str | None = None
    grain: tuple[Spot, Spot]
    vertices: dict[str, Spot]
    edges: list[EdgeDoc] = Field(min_length=3)
    darts: list[DartDoc] = []
    marks: dict[str, Spot] = {}
    lines: dict[str, list[Spot]] = {}
    line_parts: list[LineDoc] = []
    notches: list[NotchDoc] = []
    aliases: dict[str, str] = {}
    diamonds: list[DiamondDoc] = []


class SeamDoc(_Document):
    """A seam; `lengths` are as sewn, one a side, in cm."""

    name: str
    sides: tuple[list[SpanDoc], list[SpanDoc]]
    ease: tuple[Number, Number]
    lies: str = ""
    offset: Number = 0.0
    words: tuple[str, str] = ("front", "back")
    lengths: tuple[Number, Number] | None = None


class CheckDoc(_Document):
    """What a check found about one subject."""

    check: str
    state: str
    where: list[str]
    amount: Number
    tolerance: Number
    unit: str = "cm"
    words: str = ""


class PatternDoc(_Document):
    """An `izett-pattern` document."""

    format: Literal["izett-pattern"] = FORMAT
    version: Literal[1] = VERSION
    unit: Literal["cm"] = "cm"
    measures: dict[str, Number] = {}
    intent: IntentDoc = IntentDoc()
    pieces: list[PieceDoc]
    seams: list[SeamDoc] = []
    values: dict[str, Number] = {}
    allowances: dict[str, Number] = {}
    symbols: dict[str, str] = {}
    checks: list[CheckDoc] = []


def pattern_document(
    pattern: d.Pattern,
    *,
    seam_allowances: Allowances,
    measures: Mapping[str, float],
    values: Mapping[str, float],
    allowances: Mapping[str, float],
    symbols: Mapping[str, str],
    results: tuple[Result, ...] = (),
) -> PatternDoc:
    """Return the document of a pattern with the values it was worked out from."""
    return PatternDoc(
        measures=dict(measures),
        intent=IntentDoc(
            fit=pattern.intent.fit,
            cloth=ClothDoc(kind=pattern.intent.cloth, stretch=pattern.intent.stretch),
            ease=dict(pattern.intent.ease),
            along={level: _chain_doc(pattern, spans) for level, spans in pattern.intent.along.items()},
        ),
        pieces=[_piece_doc(piece, seam_allowances) for piece in pattern],
        seams=[_seam_doc(pattern, seam) for seam in pattern.seams],
        values=dict(values),
        allowances=dict(allowances),
        symbols=dict(symbols),
        checks=[
            CheckDoc(
                check=r.check,
                state=r.finding.verdict.value,
                where=list(r.finding.where),
                amount=r.finding.amount,
                tolerance=r.finding.tolerance,
                unit=r.finding.unit,
                words=r.words,
            )
            for r in results
        ],
    )


def evaluated_document(
    evaluation: Evaluation, *, measures: Mapping[str, float], seam_allowances: Allowances
) -> PatternDoc:
    """Return the document of a recipe worked out for a body, with all that it was worked out from."""
    sums = evaluation.draft.sums
    lines = evaluation.draft.lines
    return pattern_document(
        evaluation.pattern,
        seam_allowances=seam_allowances,
        measures=measures,
        values={line.symbol: line.value for line in lines},
        allowances={symbol: sums[symbol] for symbol in sums.sheet.allowances},
        symbols={line.symbol: line.state.value for line in lines},
        results=evaluation.results,
    )


def write_pattern(document: PatternDoc) -> str:
    """Return the document as JSON text."""
    return document.model_dump_json(by_alias=True, indent=1) + "\n"


def read_pattern(text: str) -> tuple[d.Pattern, PatternDoc]:
    """Read an `izett-pattern` document.

    Raises:
        UnreadableFile: it is damaged, foreign or of a newer version; the message says where.
    """
    try:
        data: Any = json.loads(text)
    except ValueError as error:
        raise UnreadableFile(f"The file is not valid JSON: {error}.", mend="Check that it was copied whole.") from error
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise UnreadableFile(
            f"This is not a pattern file: it does not say “format”: “{FORMAT}”.",
            mend="Choose a file that was written by Izett.",
        )
    if data.get("version") != VERSION:
        raise UnreadableFile(
            f"The pattern file has version {data.get('version')!r}; this program reads version {VERSION}.",
            mend="Use a newer version of the program.",
        )
    try:
        doc = PatternDoc.model_validate(data)
        pattern = pattern_of(doc)
    except ValidationError as error:
        first = error.errors()[0]
        place = " → ".join(str(part) for part in first["loc"])
        raise UnreadableFile(
            f"The pattern file is damaged at {place}: {first['msg'].lower()}.", mend="Take an undamaged copy."
        ) from error
    except (KeyError, ValueError) as error:
        raise UnreadableFile(
            f"The pattern file contradicts itself: {error}.", mend="Take an undamaged copy."
        ) from error
    return pattern, doc


def pattern_of(doc: PatternDoc) -> d.Pattern:
    """Return the pattern that a document describes."""
    return d.Pattern(
        tuple(_piece(piece) for piece in doc.pieces),
        tuple(
            d.Seam(
                seam.name, (_chain(seam.sides[0]), _chain(seam.sides[1])), seam.ease, seam.lies, seam.words, seam.offset
            )
            for seam in doc.seams
        ),
        d.Intent(
            doc.intent.fit,
            doc.intent.cloth.kind,
            MappingProxyType(dict(doc.intent.ease)),
            doc.intent.cloth.stretch,
            MappingProxyType({level: _chain(spans) for level, spans in doc.intent.along.items()}),
        ),
    )


def _piece_doc(piece: d.Piece, allowances: Allowances) -> PieceDoc:
    parts: dict[str, list[Spot]] = {}
    for line in piece.lines:
        parts.setdefault(line.level, list(line.points))
    return PieceDoc(
        name=piece.name,
        title=piece.title,
        part=piece.part,
        cut=piece.cut,
        on_fold=piece.on_fold,
        grain=piece.grain,
        vertices=dict(piece.vertices),
        edges=[
            EdgeDoc(
                role=edge.role,
                lineage=edge.lineage,
                start=edge.start,
                end=edge.end,
                curve=list(edge.curve.points),
                allowance=allowances.of(piece, edge),
            )
            for edge in piece.edges
        ],
        darts=[
            DartDoc(
                name=dart.name,
                family=dart.family,
                form=dart.form,
                sewn=dart.sewn,
                pivot=dart.pivot,
                tip=piece.vertex(dart.tip),
                tip_vertex=dart.tip,
                set_back=dart.set_back,
                bow=dart.bow,
                mouth=dart.mouth,
            )
            for dart in piece.darts
        ],
        marks=dict(piece.marks),
        lines=parts,
        line_parts=[LineDoc(level=line.level, points=list(line.points)) for line in piece.lines],
        notches=[
            NotchDoc(
                piece=piece.name,
                start=notch.span.start,
                end=notch.span.end,
                along=notch.span.along,
                distance=notch.distance,
                kind=notch.kind,
            )
            for notch in piece.notches
        ],
        aliases=dict(piece.aliases),
        diamonds=[
            DiamondDoc(name=x.name, family=x.family, top=x.top, bottom=x.bottom, left=x.left, right=x.right)
            for x in piece.diamonds
        ],
    )


def _seam_doc(pattern: d.Pattern, seam: d.Seam) -> SeamDoc:
    first, second = seam.sides
    return SeamDoc(
        name=seam.name,
        sides=(_chain_doc(pattern, first), _chain_doc(pattern, second)),
        ease=seam.ease,
        lies=seam.lies,
        offset=seam.offset,
        words=seam.words,
        lengths=seam_lengths(pattern, seam),
    )


def _chain_doc(pattern: d.Pattern, spans: tuple[d.Span, ...]) -> list[SpanDoc]:
    return [SpanDoc(piece=pattern.holding(s.start).name, start=s.start, end=s.end, along=s.along) for s in spans]


def _chain(spans: list[SpanDoc]) -> tuple[d.Span, ...]:
    return tuple(d.Span(s.start, s.end, s.along) for s in spans)


def _piece(doc: PieceDoc) -> d.Piece:
    edges = tuple(d.Edge(e.role, e.lineage, e.start, e.end, Curve(tuple(e.curve))) for e in doc.edges)
    for edge, following in zip(edges, (*edges[1:], edges[0]), strict=True):
        if edge.end != following.start or edge.curve.end != following.curve.start:
            raise ValueError(f"the outline of {doc.name} is open at {edge.end}")
    return d.Piece(
        name=doc.name,
        title=doc.title,
        part=doc.part,
        cut=doc.cut,
        on_fold=doc.on_fold,
        grain=doc.grain,
        edges=edges,
        darts=tuple(
            d.Intake(x.name, x.family, x.pivot, x.set_back, x.mouth, x.tip_vertex, x.sewn, x.form, x.bow)
            for x in doc.darts
        ),
        marks=MappingProxyType(dict(doc.marks)),
        lines=tuple(d.LevelLine(line.level, tuple(line.points)) for line in doc.line_parts),
        notches=tuple(d.Notch(d.Span(n.start, n.end, n.along), n.distance, n.kind) for n in doc.notches),
        aliases=MappingProxyType(dict(doc.aliases)),
        diamonds=tuple(d.Diamond(x.name, x.family, x.top, x.bottom, x.left, x.right) for x in doc.diamonds),
    )
