"""Draw a style line: cut a piece from edge to edge into panels, a yoke, or at a waist seam.

A line that ends beside a dart takes the dart up: its legs become part of the seam. The parted lines keep their names
on both parts, so that a seam or a step that ran along them still does. Common practice, no single source.
"""

from collections.abc import Iterator

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import cross, distance, subtract
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.parting import MOST_OVER_BUST, Naming, Ready, corners_of, parted, ready_between
from izett.styling.references import Params, PointRef
from izett.styling.subject import Kind, Subject, others_by_nearness, run_of
from izett.styling.words import line_words
from izett.wording import cm


class StyleLine(Params):
    """Where the line begins and ends, and how it runs."""

    start: PointRef = Field(description="where the line begins")
    end: PointRef = Field(description="where it ends")
    bend: float = length(0.0, low=-12, high=12, meaning="bulge of the line in its middle (to the left from the start)")
    title: str = Field("Panel", max_length=40, description="what the part cut off is called: Yoke, Side panel")


def apply(params: StyleLine, context: Context) -> Outcome:
    """Cut along the line."""
    ready = ready_between(context, params.start, params.end)
    _refuse_crossed(ready, params.bend)
    name = "_".join("".join(c if c.isalnum() else " " for c in params.title.lower()).split()) or "panel"
    takes_up = any(gate.inwards for gate in ready.gates)
    ease = (0.0, MOST_OVER_BUST) if takes_up else (0.0, 0.0)
    naming = Naming(name, f"{params.title} ({ready.piece.title.lower()})", f"{name}_piece", ease=ease)
    cut = parted(context, ready, naming, bend=params.bend)
    edge = next(e for e in cut.garment.piece(cut.cut_off).edges if e.lineage in cut.lines)
    made = (cut.cut_off, cut.seam.name, *sorted(cut.lines), *(g.arrive for g in ready.gates))
    return Outcome(cut.garment, (Sum("length of the line", edge.curve.length),), made)


def _refuse_crossed(ready: Ready, bend: float) -> None:
    """Refuse a straight line that runs through a dart which it does not take up."""
    if bend:
        return
    spots = corners_of(ready.edges)
    a, b = (spots[gate.arrive] for gate in ready.gates)
    taken = {gate.arrive for gate in ready.gates}
    for dart in ready.piece.darts:
        if dart.mouth[0] in taken:
            continue
        tip, mouth = ready.piece.vertex(dart.tip), ready.piece.vertex(dart.mouth[0])
        if distance(a, b) and _parts(a, b, tip, mouth) and _parts(tip, mouth, a, b):
            raise StepRefused(
                f"The line would run through {line_words(dart.name)}.",
                fix="End it beside the dart's mouth to take it up, or move the dart first.",
                where=(dart.name,),
            )


def _parts(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float], d: tuple[float, float]) -> bool:
    along = subtract(b, a)
    return cross(along, subtract(c, a)) * cross(along, subtract(d, a)) < 0


def describe(params: StyleLine) -> str:
    """Return the step in the maker's words."""
    bent = f", bent by {cm(abs(params.bend), 2)}" if params.bend else ""
    return f"{params.title}: cut from {line_words(params.start.along)} to {line_words(params.end.along)}{bent}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer a line from the place pointed at to the nearest place of every other line of the piece."""
    if subject.kind is not Kind.LINE or subject.piece is None or subject.span is None:
        return
    if not subject.piece.region:
        return
    for lineage in others_by_nearness(subject.piece, subject):
        span = run_of(pattern, subject.piece, lineage)
        if span is not None:
            end = {"start": span.start, "end": span.end, "along": span.along, "fraction": 0.5}
            yield Offer(f"Cut from here to {line_words(lineage)}", {"start": subject.place(), "end": end})


def _place(start: str, end: str, along: str, fraction: float) -> dict[str, object]:
    return {"start": start, "end": end, "along": along, "fraction": fraction}


OPERATION = Operation(
    key="style_line",
    title="Draw a style line",
    params=StyleLine,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.LINES,
    offers=offers,
    examples=(
        {
            "start": _place("back.neck_cb", "back.waist_cb", "back.centre", 0.2),
            "end": _place("back.underarm", "back.shoulder_tip", "back.armhole", 0.6),
            "title": "Yoke",
        },
        {
            "start": _place("front.neck_shoulder", "front.neck_cf", "front.neck", 0.5),
            "end": _place("front.underarm", "front.shoulder_tip", "front.armhole", 0.55),
            "bend": 0.8,
        },
    ),
)
