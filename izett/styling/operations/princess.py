"""A princess line: from the shoulder, the armhole or the neckline over the bust to the waist or the hem.

In front the bust dart is closed into the line first, then the line takes up the waist dart, so that nothing of the
shape is lost; behind it takes up the waist dart (and a shoulder dart beside it). The two panels have a matched seam:
what one is longer over the bust, at most 0.6 cm, is eased. Notches lie at the apex and 3.8 cm above and below it in
front, 5 cm below the top and 3.8 cm below that behind. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.outline import along_line
from izett.geometry.point import distance
from izett.pattern.document import Seam
from izett.pattern.facts import Role, Zone
from izett.pattern.paper import Gate, gate_of, parted_at
from izett.pattern.piece import Diamond, Intake, Notch, NotchKind, Piece, mouth_width
from izett.pattern.sewn import holding, walk
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.parting import MOST_OVER_BUST, Naming, Ready, parted
from izett.styling.references import Params, PointRef
from izett.styling.subject import Subject, ends_of, run_of
from izett.styling.words import line_words

#: cm. Notches: from the apex up and down in front; from the top, and the second from the first, behind.
BESIDE_APEX = 3.8
BELOW_TOP = 5.0
SECOND = 3.8
#: cm. From the armhole the line bulges a little: it leaves the armhole nearly square and turns down to the bust.
ARMHOLE_BOW = 1.2
#: cm. A bust dart aimed so near to the waist dart's point still makes one line with it: it turns at the bust.
ONE_POINT = 3.0
UPPER = (Role.SHOULDER, Role.ARMHOLE, Role.NECK)


class Princess(Params):
    """Where the line begins; it ends at the waist dart, or at the hem below a dart within the piece."""

    start: PointRef = Field(description="where the line begins: shoulder, armhole or neckline")
    bow: float = length(0.0, low=-2, high=3, meaning="bulge of the line above the bust, towards the centre")


def apply(params: Princess, context: Context) -> Outcome:
    """Close the bust dart into the line, then cut through the waist dart."""
    piece, edge, _ = context.place(params.start)
    if edge.role not in UPPER:
        raise StepRefused(
            f"A princess line begins at the shoulder, the armhole or the neckline, not at {line_words(edge.lineage)}.",
            fix="Choose a place there, or draw a style line instead.",
            where=(edge.lineage,),
        )
    pattern = context.garment
    bust = [dart for dart in piece.darts if dart.family == "bust" and not _opens_on(piece, dart, edge.lineage)]
    taken = 0.0
    if len(bust) > 1:
        # A full cup's dart in two: both close into the one line.
        family = {"darts": f"{piece.part}.{bust[0].family}", "ways": "one"}
        pattern = context.work("share_intake", family, on=pattern).garment
        bust = bust[:1]
    for dart in bust:
        moved = {"dart": dart.name, "to": params.start.model_dump()}
        pattern = context.work("move_dart", moved, on=pattern).garment
        taken += mouth_width(pattern.piece(piece.name), pattern.piece(piece.name).dart(dart.name))
    piece = pattern.piece(piece.name)
    ready, diamond = _ready(context.on(pattern), piece, params.start)
    front = piece.zone is Zone.FRONT
    naming = Naming(
        f"princess_{piece.zone}",
        f"{piece.title}, side panel",
        "side",
        ease=(0.0, MOST_OVER_BUST),
        lies="eased over the bust" if front else "eased over the shoulder blade",
    )
    made = parted(context.on(pattern), ready, naming, bow=params.bow, by=diamond)
    seam, side = made.seam, made.cut_off
    cut = _notched(made.garment, seam, ready.piece.marks.get("apex") if front else None)
    cut = cut.with_pieces(replace(cut.piece(piece.name), title=f"{piece.title}, centre panel"))
    lengths = [sum(s.edge.curve.length for s in walk(holding(cut, x.start), x)) for (x,) in seam.sides]
    sums = [Sum("bust dart taken up", taken)] if taken else []
    sums += [Sum(f"edge of the {seam.words[i]} panel", length) for i, length in enumerate(lengths)]
    sums.append(Sum("eased in", lengths[1] - lengths[0]))
    return Outcome(cut, tuple(sums), (side, seam.name, *(span.along for (span,) in seam.sides)))


def _opens_on(piece: Piece, dart: Intake, lineage: str) -> bool:
    return any(edge.end == dart.mouth[0] and edge.lineage == lineage for edge in piece.edges)


def _ready(context: Context, piece: Piece, start: PointRef) -> tuple[Ready, Diamond | None]:
    """Return the piece parted at the top and at the foot of the line, and the dart within it that the line takes up."""
    edges = list(piece.edges)
    top = next((d for d in piece.darts if d.family != "waist" and _opens_on(piece, d, start.along)), None)
    waist = next((d for d in piece.darts if d.family == "waist"), None)
    diamond = next((d for d in piece.diamonds if d.family == "waist"), None)
    if waist is None and diamond is None:
        raise StepRefused(
            f"{piece.title} has no waist dart for the line to take up.",
            fix="Draw a style line instead.",
            where=(piece.name,),
        )
    if top is not None:
        upper = gate_of(top)
    else:
        _, edge, along = context.place(start)
        names = (context.named("line_start"), context.named("line_start_beyond"))
        edges = parted_at(edges, edge, along, names)
        upper = Gate(*names)
    if waist is not None:
        lower = gate_of(waist)
        if upper.inwards and distance(waist.pivot, upper.inwards[0]) < ONE_POINT:
            # One point for both darts: the line turns there once, and runs on to the waist dart's mouth.
            lower = replace(lower, inwards=())
        return Ready(piece, edges, (upper, lower)), None
    assert diamond is not None
    hems = [e for e in edges if e.role in (Role.HEM, Role.WAIST)]
    foot = next((e for e in hems if _spans_x(e.curve.start[0], e.curve.end[0], diamond.bottom[0])), None)
    if foot is None:
        raise StepRefused(
            f"{piece.title} has no hem below {line_words(diamond.name)}.",
            fix="Draw a style line.",
            where=(piece.name,),
        )
    names = (context.named("line_end"), context.named("line_end_beyond"))
    share = (diamond.bottom[0] - foot.curve.start[0]) / (foot.curve.end[0] - foot.curve.start[0])
    edges = parted_at(edges, foot, share * foot.curve.length, names)
    return Ready(piece, edges, (upper, Gate(*names))), diamond


def _spans_x(a: float, b: float, x: float) -> bool:
    return min(a, b) < x < max(a, b)


def _notched(pattern: Working, seam: Seam, apex: tuple[float, float] | None) -> Working:
    """Return the pattern with notches on both panels, at equal distances as sewn."""
    for (span,) in seam.sides:
        piece = holding(pattern, span.start)
        (stretch,) = walk(piece, span)
        curve, whole = stretch.open_curve, stretch.edge.curve.length
        at_foot = curve.start[1] < curve.end[1]
        if apex is not None:
            middle = along_line(curve.flattened(), apex)
            places, kind = [middle - BESIDE_APEX, middle, middle + BESIDE_APEX], NotchKind.SINGLE
        else:
            from_top = [BELOW_TOP, BELOW_TOP + SECOND]
            places, kind = [whole - d for d in from_top] if at_foot else from_top, NotchKind.DOUBLE
        notches = tuple(Notch(span, d, kind) for d in places if 0 < d < whole)
        pattern = pattern.with_pieces(replace(piece, notches=(*piece.notches, *notches)))
    return pattern


def describe(params: Princess) -> str:
    """Return the step in the maker's words."""
    return f"Princess line from {line_words(params.start.along)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer a princess line from the place pointed at, or from each upper line of a piece with a waist dart."""
    piece = subject.piece
    families = [d.family for d in piece.darts] + [d.family for d in piece.diamonds] if piece else []
    if piece is None or "waist" not in families:
        return
    if subject.role in UPPER:
        bow = ARMHOLE_BOW if subject.role is Role.ARMHOLE else 0.0
        yield Offer("Princess line from here", {"start": subject.place(), "bow": bow})
    elif subject.dart is not None:
        for role in UPPER:
            for lineage in ends_of(piece, role):
                span = run_of(pattern, piece, lineage)
                if span is not None:
                    start = {"start": span.start, "end": span.end, "along": span.along, "fraction": 0.5}
                    bow = ARMHOLE_BOW if role is Role.ARMHOLE else 0.0
                    yield Offer(f"Princess line from {line_words(lineage)}", {"start": start, "bow": bow})


def _place(start: str, end: str, along: str, fraction: float, bow: float = 0.0) -> dict[str, object]:
    return {"start": {"start": start, "end": end, "along": along, "fraction": fraction}, "bow": bow}


OPERATION = Operation(
    key="princess",
    title="Princess line",
    params=Princess,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.LINES,
    offers=offers,
    examples=(
        _place("front.underarm", "front.shoulder_tip", "front.armhole", 0.55, 1.2),
        _place("front.neck_shoulder", "front.shoulder_tip", "front.shoulder", 0.5),
        _place("back.underarm", "back.shoulder_tip", "back.armhole", 0.6, 1.0),
    ),
)
