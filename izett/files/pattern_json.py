"""The pattern as open JSON: `izett-pattern`, version 1; its JSON Schema lies in docs/formats.

Floats are written in their shortest exact form, so reading back gives the identical pattern.
"""

from collections.abc import Mapping, Sequence
from dataclasses import asdict, replace
from types import MappingProxyType

from pydantic import ValidationError

from izett.checking.check import Result
from izett.errors import ReferenceLost, UnreadableFile
from izett.files import older
from izett.files.pattern_doc import (
    FORMAT,
    VERSION,
    AcceptedDoc,
    CheckDoc,
    ClothDoc,
    CutCornerDoc,
    CutForDoc,
    DartDoc,
    DiamondDoc,
    EdgeDoc,
    IntentDoc,
    LineDoc,
    LiningDoc,
    MachineDoc,
    NotchDoc,
    OpeningDoc,
    PatternDoc,
    PieceDoc,
    ReadyDoc,
    SeamDoc,
    SpanDoc,
    Spot,
    TurningDoc,
)
from izett.files.reading import read_json, wrong_in
from izett.finishing.allowances import Allowances
from izett.geometry.curve import Curve
from izett.geometry.point import distance
from izett.geometry.tolerance import SAME_POINT
from izett.pattern import document as d
from izett.pattern.piece import (
    Diamond,
    Edge,
    Intake,
    LevelLine,
    Lining,
    Notch,
    Piece,
    Span,
    closed,
)
from izett.pattern.sewn import seam_lengths
from izett.recipe.evaluation import Evaluation
from izett.wording import plain


def pattern_document(
    pattern: d.Pattern,
    *,
    measures: Mapping[str, float],
    values: Mapping[str, float],
    allowances: Mapping[str, float],
    symbols: Mapping[str, str],
    results: tuple[Result, ...] = (),
) -> PatternDoc:
    """Return the document of a pattern with the values it was worked out from."""
    allowed = Allowances.of_pattern(pattern)
    return PatternDoc(
        measures=dict(measures),
        intent=IntentDoc(
            fit=pattern.intent.fit,
            cloth=ClothDoc(kind=pattern.intent.cloth, stretch=pattern.intent.stretch),
            ease=dict(pattern.intent.ease),
            along={level: _chain_doc(pattern, spans) for level, spans in pattern.intent.along.items()},
            fullness=dict(pattern.intent.fullness),
        ),
        pieces=[_piece_doc(piece, allowed) for piece in pattern],
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
                words=plain(r.words),
                aspect=r.finding.aspect,
                half=r.finding.half,
            )
            for r in results
        ],
        links=dict(pattern.links),
        openings=[
            OpeningDoc(name=o.name, closure=o.closure, span=_span_doc(pattern, o.span), length=o.length)
            for o in pattern.openings
        ],
        accepted=[AcceptedDoc(**{**asdict(a), "where": list(a.where)}) for a in pattern.accepted],
        machine=MachineDoc(**asdict(pattern.machine)) if pattern.machine else None,
        cut_for=_cut_for_doc(pattern.allowances),
        titles=dict(pattern.titles),
    )


def evaluated_document(evaluation: Evaluation, *, measures: Mapping[str, float]) -> PatternDoc:
    """Return the document of a recipe worked out for a body, with all that it was worked out from."""
    sums = evaluation.draft.sums
    lines = evaluation.draft.lines
    return pattern_document(
        evaluation.pattern,
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
    data = read_json(text)
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise UnreadableFile(
            f"This is not a pattern file: it does not say “format”: “{FORMAT}”.",
            fix="Choose a file that was written by Izett.",
        )
    if data.get("version") != VERSION:
        raise UnreadableFile(
            f"The pattern file has version {data.get('version')!r}; this program reads version {VERSION}.",
            fix="Use a newer version of the program.",
        )
    try:
        doc = PatternDoc.model_validate(data)
        pattern = pattern_of(doc)
    except ValidationError as error:
        place, words, _ = wrong_in(error)
        raise UnreadableFile(
            f"The pattern file is damaged at {place}: {words}.", fix="Take an undamaged copy."
        ) from error
    except (KeyError, ValueError) as error:
        raise UnreadableFile(f"The pattern file contradicts itself: {error}.", fix="Take an undamaged copy.") from error
    return pattern, doc


def pattern_of(doc: PatternDoc) -> d.Pattern:
    """Return the pattern that a document describes; a document of before facts were written has them from its names."""
    pieces = tuple(_piece(piece) for piece in doc.pieces)
    return d.Pattern(
        pieces,
        tuple(_seam(seam, pieces) for seam in doc.seams),
        d.Intent(
            doc.intent.fit,
            doc.intent.cloth.kind,
            MappingProxyType(dict(doc.intent.ease)),
            doc.intent.cloth.stretch,
            MappingProxyType({level: _chain(spans) for level, spans in doc.intent.along.items()}),
            MappingProxyType(dict(doc.intent.fullness)),
        ),
        links=MappingProxyType(dict(doc.links)),
        openings=tuple(d.Opening(o.name, o.closure, _span(o.span), o.length) for o in doc.openings),
        accepted=tuple(
            d.Accepted(a.check, tuple(a.where), a.up_to, a.reason, a.aspect, a.half, a.worse) for a in doc.accepted
        ),
        machine=d.Machine(doc.machine.paper, doc.machine.sewn) if doc.machine else None,
        titles=MappingProxyType(doc.titles or older.titles(pieces, [seam.name for seam in doc.seams])),
        allowances=_cut_for(doc.cut_for),
    )


def _seam(doc: SeamDoc, pieces: Sequence[Piece]) -> d.Seam:
    sides = (_chain(doc.sides[0]), _chain(doc.sides[1]))
    kind = doc.kind or older.seam_kind(doc.name, sides, pieces)
    return d.Seam(doc.name, sides, doc.ease, doc.lies, doc.words, doc.offset, kind, doc.half)


def _piece_doc(piece: Piece, allowances: Allowances) -> PieceDoc:
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
                zone=edge.zone,
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
        zone=piece.zone,
        region=piece.region,
        half=piece.half,
        layer=piece.layer,
        lie=piece.lie,
        corners=dict(piece.corners),
        lining=_lining_doc(piece),
    )


def _lining_doc(piece: Piece) -> LiningDoc | None:
    found = piece.lining
    return LiningDoc(of=found.of, shorter=found.shorter, lines=dict(found.lines)) if found else None


def _seam_doc(pattern: d.Pattern, seam: d.Seam) -> SeamDoc:
    first, second = seam.sides
    return SeamDoc(
        name=seam.name,
        sides=(_chain_doc(pattern, first), _chain_doc(pattern, second)),
        ease=seam.ease,
        lies=seam.lies,
        offset=seam.offset,
        words=seam.words,
        lengths=_lengths(pattern, seam),
        kind=seam.kind,
        half=seam.half,
    )


def _cut_for_doc(cut_for: d.CutFor) -> CutForDoc:
    return CutForDoc(
        purpose=cut_for.purpose,
        by_lineage=dict(cut_for.by_lineage),
        corners={name: CutCornerDoc(**asdict(corner)) for name, corner in cut_for.corners.items()},
        pieces={name: ReadyDoc(**asdict(ready)) for name, ready in cut_for.pieces.items()},
        turnings={name: TurningDoc(**asdict(turning)) for name, turning in cut_for.turnings.items()},
    )


def _cut_for(doc: CutForDoc) -> d.CutFor:
    return d.CutFor(
        doc.purpose,
        MappingProxyType(dict(doc.by_lineage)),
        MappingProxyType({name: d.CutCorner(one.kind, one.along) for name, one in doc.corners.items()}),
        MappingProxyType({name: d.Ready(**one.model_dump()) for name, one in doc.pieces.items()}),
        MappingProxyType({name: d.Turning(**one.model_dump()) for name, one in doc.turnings.items()}),
    )


def _lengths(pattern: d.Pattern, seam: d.Seam) -> tuple[float, float] | None:
    """Return a seam's lengths; None where a side has lost its end, which a check tells."""
    try:
        return seam_lengths(pattern, seam)
    except ReferenceLost:
        return None


def _chain_doc(pattern: d.Pattern, spans: tuple[Span, ...]) -> list[SpanDoc]:
    return [_span_doc(pattern, span) for span in spans]


def _span_doc(pattern: d.Pattern, span: Span) -> SpanDoc:
    piece = pattern.find(span.start)
    return SpanDoc(piece=piece.name if piece else "", start=span.start, end=span.end, along=span.along)


def _chain(spans: list[SpanDoc]) -> tuple[Span, ...]:
    return tuple(_span(span) for span in spans)


def _span(doc: SpanDoc) -> Span:
    return Span(doc.start, doc.end, doc.along)


def _piece(doc: PieceDoc) -> Piece:
    edges = tuple(Edge(e.role, e.lineage, e.start, e.end, Curve(tuple(e.curve)), e.zone) for e in doc.edges)
    for edge, following in zip(edges, (*edges[1:], edges[0]), strict=True):
        if edge.end != following.start or distance(edge.curve.end, following.curve.start) > SAME_POINT:
            raise ValueError(f"the outline of {doc.name} is open at {edge.end}")
    corners = {edge.start for edge in edges}
    for dart in doc.darts:
        for name in (*dart.mouth, dart.tip_vertex):
            if doc.aliases.get(name, name) not in corners:
                raise ValueError(f"the dart {dart.name} has lost its corner {name}")
    piece = Piece(
        name=doc.name,
        title=doc.title,
        part=doc.part,
        cut=doc.cut,
        on_fold=doc.on_fold,
        grain=doc.grain,
        edges=closed(edges),
        darts=tuple(
            Intake(x.name, x.family, x.pivot, x.set_back, x.mouth, x.tip_vertex, x.sewn, x.form, x.bow)
            for x in doc.darts
        ),
        marks=MappingProxyType(dict(doc.marks)),
        lines=tuple(LevelLine(line.level, tuple(line.points)) for line in doc.line_parts),
        notches=tuple(Notch(Span(n.start, n.end, n.along), n.distance, n.kind) for n in doc.notches),
        aliases=MappingProxyType(dict(doc.aliases)),
        diamonds=tuple(Diamond(x.name, x.family, x.top, x.bottom, x.left, x.right) for x in doc.diamonds),
        half=doc.half,
        layer=doc.layer,
        lie=doc.lie,
        lining=Lining(doc.lining.of, doc.lining.shorter, tuple(doc.lining.lines.items())) if doc.lining else None,
    )
    if doc.zone is None or doc.region is None or doc.corners is None:
        return older.with_facts(piece)
    return replace(piece, zone=doc.zone, region=doc.region, corners=MappingProxyType(dict(doc.corners)))
