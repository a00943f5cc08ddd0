"""Let the skirt follow the bodice at the waist: front to front and back to back, what the one has the other gets.

The corner at the side slides out or in until the waist as sewn is as long as its partner, and a little up or down so that
both side seams stay as equal as they were. Darts keep their intake. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import Point
from izett.pattern.document import Seam
from izett.pattern.facts import Corner, Role, SeamKind, Zone
from izett.pattern.piece import Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import holding, span_length
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Section, Sum, as_ease
from izett.styling.parting import seam_of
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject

#: cm. Slid closer than this the two waists are equal; each slide comes about ten times nearer.
EQUAL = 1e-6
MOST_SLIDES = 40
#: cm. A side corner that would have to slide further makes another skirt.
FARTHEST = 6.0
ZONES = (Zone.FRONT, Zone.BACK)


class FollowWaist(Params):
    """How the lower edge follows."""

    as_meant: bool = Field(True, description="with the ease that is meant already")


def apply(params: FollowWaist, context: Context) -> Outcome:
    """Slide the side corners of the lower pieces until the waists agree."""
    seam = seam_of(context, SeamKind.WAIST)
    garment = context.garment
    upper, lower = (_by_zone(garment, side) for side in seam.sides)
    if not all(upper.values()) or not all(lower.values()):
        raise StepRefused(
            "Front and back do not both meet at the waist seam.",
            fix="True the seam by hand, or put this step before the one that changed it.",
            where=(seam.name,),
        )
    ease = sum(seam.ease) / 4 if params.as_meant else 0.0
    wanted = {zone: _long(garment, upper[zone]) + ease for zone in ZONES}
    before = {zone: _long(garment, lower[zone]) for zone in ZONES}
    if any(abs(wanted[zone] - before[zone]) > FARTHEST for zone in ZONES):
        raise StepRefused(
            "The waists are too far apart for the side seams alone.",
            fix="Change a dart, or gather the longer edge.",
            where=(seam.name,),
        )
    garment = _slid(garment, lower, wanted, seam)
    told = [Sum(f"{zone} waist longer", _long(garment, lower[zone]) - before[zone]) for zone in ZONES]
    return Outcome(garment, tuple(told))


def _by_zone(garment: Readable, side: tuple[Span, ...]) -> Mapping[Zone, list[Span]]:
    found: dict[Zone, list[Span]] = {zone: [] for zone in ZONES}
    for span in side:
        zone = holding(garment, span.start).zone
        if zone in found:
            found[zone].append(span)
    return found


def _long(garment: Readable, spans: list[Span]) -> float:
    return sum(span_length(holding(garment, span.start), span) for span in spans)


def _slid(garment: Working, lower: Mapping[Zone, list[Span]], wanted: Mapping[Zone, float], seam: Seam) -> Working:
    corners = {zone: _corner(garment, spans, seam) for zone, spans in lower.items()}
    meant = _sides_apart(garment, corners)
    still, shifts = garment, dict.fromkeys(ZONES, (0.0, 0.0))
    for _ in range(MOST_SLIDES):
        off = {zone: wanted[zone] - _long(garment, lower[zone]) for zone in ZONES}
        apart = _sides_apart(garment, corners) - meant
        if max(abs(apart), *(abs(by) for by in off.values())) < EQUAL:
            break
        for zone, sign in ((Zone.FRONT, -0.5), (Zone.BACK, 0.5)):
            # What a front side seam has more than the back's is shared: the one corner sinks, the other rises.
            dx, dy = shifts[zone]
            shifts[zone] = (dx + off[zone], dy + sign * apart)
        garment = still.with_pieces(*(_moved(still, *corners[zone], shifts[zone]) for zone in ZONES))
    return garment


def _corner(garment: Readable, spans: list[Span], seam: Seam) -> tuple[str, str]:
    """Return the name of the piece that has the side corner of a waist, and the corner."""
    for span in spans:
        piece = holding(garment, span.start)
        name = piece.corner(Corner.WAIST_SIDE)
        if name is not None:
            return piece.name, name
    raise StepRefused(
        "The side corner of the waist was cut away.",
        fix="Put this step before the one that cut it, or true the seam by hand.",
        where=(seam.name,),
    )


def _moved(garment: Readable, piece_name: str, corner: str, shift: Point) -> Piece:
    piece = garment.find_piece(piece_name)
    assert piece is not None
    x, y = piece.vertex(corner)
    # The side lies at +x: both halves are drawn with their centre to the left.
    outwards = 1.0 if x > piece.grain[0][0] else -1.0
    return redrawn(piece, moves={corner: (x + outwards * shift[0], y + shift[1])})


def _sides_apart(garment: Readable, corners: Mapping[Zone, tuple[str, str]]) -> float:
    """Return how much longer the front's side seam is than the back's, cm."""
    return _side(garment, corners[Zone.FRONT][0]) - _side(garment, corners[Zone.BACK][0])


def _side(garment: Readable, piece_name: str) -> float:
    piece = garment.find_piece(piece_name)
    assert piece is not None
    return sum(edge.curve.length for edge in piece.edges if edge.role is Role.SIDE)


def describe(_params: FollowWaist) -> str:
    """Return the step in the maker's words."""
    return "Let the skirt follow the bodice at the waist"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer it where a waist that is sewn to a skirt is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.WAIST and pattern.seams_of(SeamKind.WAIST):
        yield Offer("Let the skirt follow at the waist", {"as_meant": True})


OPERATION = Operation(
    key="follow_waist",
    title="Let the skirt follow at the waist",
    params=FollowWaist,
    apply=apply,
    describe=describe,
    width=as_ease,
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("bodice", "skirt"),
    before=(("transpose_waist", {"up": 1.0}),),
    examples=({"as_meant": True},),
)
