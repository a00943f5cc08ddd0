"""Add a band, cuff, waistband, collar stand, binding, ruffle or tie: a strip whose length follows the edge it is sewn to.

A knit neckband is about 90 % of its opening (a band of the same length stands away), but not so short that the stretched
opening does not pass the head; an elastic ring about 0.87 of the waist, cut 2 cm longer; a ruffle 1.5 to 3 times its
edge, cut in strips of the cloth's width, the joins counted; a bias binding is cut on the bias, four times as wide as it
shows. A waistband is as long as the waist without its gathers. A front band runs around the neck and down both fronts,
which are cut back by half of it, so that the bands lap over the centre. Common practice, no single source.
"""

from collections.abc import Iterator
from enum import StrEnum
from math import ceil

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.tolerance import FLATNESS
from izett.pattern.facts import Corner, Layer, Region, Role, SeamKind
from izett.pattern.piece import Span
from izett.pattern.working import Readable
from izett.pattern.worn import is_sleeve, on_body
from izett.styling.front_band import cut_back, down_the_front
from izett.styling.making import chain_of, is_half, length_of, rectangle, sewn_on
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, count, length, ratio
from izett.styling.references import Params, SpanRef
from izett.styling.subject import Kind, Subject, run_of
from izett.styling.words import line_words
from izett.wording import cm

#: cm. An elastic's ends lie over each other by this.
ELASTIC_OVERLAP = 2.0
#: A bias binding is cut so many times as wide as it shows: folded twice.
BINDING_FOLDS = 4.0
#: cm. A stretched neckband is so much longer than the head that it passes.
HEAD_SPARE = 0.2
#: A strip of exactly so many widths of the cloth takes no more.
HAIR = 1e-9
#: A ruffle sewn closer than this looks plain; over the other it does not go in.
LEAST_RUFFLE, MOST_RUFFLE = 1.5, 3.0


class Band(StrEnum):
    """What kind of strip."""

    NECKBAND = "neckband"
    WAISTBAND = "waistband"
    CUFF = "cuff"
    STAND = "stand"
    HEM_BAND = "hem_band"
    FRONT_BAND = "front_band"
    ELASTIC = "elastic"
    BINDING = "binding"
    RUFFLE = "ruffle"
    SKIRT = "skirt"
    TIE = "tie"


TITLES = {
    Band.NECKBAND: "Neckband",
    Band.WAISTBAND: "Waistband",
    Band.CUFF: "Cuff",
    Band.STAND: "Collar stand",
    Band.HEM_BAND: "Hem band",
    Band.FRONT_BAND: "Front band",
    Band.ELASTIC: "Elastic ring",
    Band.BINDING: "Bias binding",
    Band.RUFFLE: "Ruffle",
    Band.SKIRT: "Rectangle skirt",
    Band.TIE: "Tie band",
}
#: Length as a share of the edge, and finished height in cm: the trade's starts.
USUAL: dict[Band, tuple[float, float]] = {
    Band.NECKBAND: (0.9, 2.0),
    Band.WAISTBAND: (1.0, 3.0),
    Band.CUFF: (1.0, 6.0),
    Band.STAND: (1.0, 3.0),
    Band.HEM_BAND: (0.9, 5.0),
    Band.FRONT_BAND: (1.0, 3.0),
    Band.ELASTIC: (0.87, 3.0),
    Band.BINDING: (1.0, 1.0),
    Band.RUFFLE: (2.0, 10.0),
    Band.SKIRT: (1.0, 55.0),
    Band.TIE: (1.0, 3.0),
}
FOLDED = (Band.NECKBAND, Band.WAISTBAND, Band.CUFF, Band.STAND, Band.HEM_BAND, Band.FRONT_BAND, Band.TIE)
#: Strips whose length is a share of their edge; the others are as long as the edge, or as the cloth's widths.
BY_RATIO = (
    Band.NECKBAND, Band.WAISTBAND, Band.CUFF, Band.STAND, Band.HEM_BAND, Band.ELASTIC, Band.BINDING, Band.RUFFLE, Band.TIE,
)  # fmt: skip
#: Strips that run on beyond their edge: to lap for a button, or to be tied.
LAPPED = (Band.WAISTBAND, Band.CUFF, Band.STAND, Band.TIE)
#: Strips that are gathered to their edge.
GATHERED = (Band.RUFFLE, Band.SKIRT)


class AddBand(Params):
    """Which strip, along which edges."""

    kind: Band = Field(Band.NECKBAND, description="what is added")
    edges: tuple[SpanRef, ...] = Field(min_length=1, max_length=8, description="the edges that it is sewn to, in order")
    ratio: float = ratio(
        0.9,
        low=0.3,
        high=4,
        meaning="so many times as long as the edge",
        only=BY_RATIO,
        called={Band.ELASTIC: "so many times the edge, or at the waist the body's waist"},
    )
    height: float = length(
        2.0, low=0.5, high=120, meaning="finished height", called={Band.SKIRT: "length", Band.TIE: "finished width"}
    )
    overlap: float = length(
        0.0,
        low=0,
        high=150,
        meaning="longer at the end, for a button",
        only=LAPPED,
        called={Band.TIE: "longer at the end, to tie"},
    )
    cloth_width: float = length(
        140.0, low=20, high=320, meaning="width of the cloth that strips are cut from", only=GATHERED
    )
    without_gathers: bool = Field(
        True, description="the waist's gathers are left out", json_schema_extra={"only": [Band.WAISTBAND]}
    )
    bias: bool = Field(True, description="cut on the bias", json_schema_extra={"only": [Band.BINDING]})
    widths: int = count(2, low=1, high=12, meaning="widths of the cloth that it takes", only=(Band.SKIRT,))


def apply(params: AddBand, context: Context) -> Outcome:
    """Make the strip from the edges as they are now."""
    if params.kind is Band.FRONT_BAND:
        context = context.on(cut_back(context, params.edges, params.height))
    chain = chain_of(context, params.edges)
    edge = length_of(context.garment, chain)
    half = is_half(context.garment, chain)
    around = edge * (2 if half else 1)
    if params.kind is Band.RUFFLE and not LEAST_RUFFLE <= params.ratio <= MOST_RUFFLE:
        raise StepRefused(
            f"A ruffle of {params.ratio:g} times its edge is {'plain' if params.ratio < LEAST_RUFFLE else 'too full'}.",
            fix=f"Use {LEAST_RUFFLE:g} to {MOST_RUFFLE:g}.",
            where=(chain[0].along,),
        )
    ratio, why = _share_of_edge(context, params, chain, around)
    # On the fold where the garment's half is: with a lap at one end, or on the bias, it is drawn whole.
    bias = params.kind is Band.BINDING and params.bias
    folded = half and not params.overlap and not bias
    sewn = edge * ratio * (1 if folded or not half else 2)
    width = sewn + (params.overlap if not folded else 0.0)
    long = around * ratio
    if params.kind is Band.ELASTIC:
        # A ring holds on the body: at the waist it is a share of that, however wide the edge that it draws in.
        if _is_waist(context, chain):
            long = context.body.get("waist_girth", around) * params.ratio
        folded, width = False, long + ELASTIC_OVERLAP
    tall = params.height * (2 if params.kind in FOLDED else BINDING_FOLDS if params.kind is Band.BINDING else 1)
    made = rectangle(
        context,
        title=TITLES[params.kind],
        width=width,
        height=tall,
        cut=2 if params.kind in (Band.CUFF, Band.TIE) and not half else 1,
        on_fold=folded,
        roles=(Role.PANEL, Role.HEM if params.kind in GATHERED else Role.PANEL, Role.PANEL),
        layer=Layer.STRENGTH if params.kind is Band.ELASTIC else Layer.OUTER,
        bias=bias,
    )
    told = [
        Sum("edge, around" if half else "edge", around),
        *why,
        *([Sum("times", ratio, "")] if params.kind in (*BY_RATIO, Band.SKIRT) else []),
        Sum("finished length", long + params.overlap),
        Sum("cut height", tall),
    ]
    if params.kind in GATHERED:
        strips = ceil(long / params.cloth_width - HAIR)
        told += [Sum("strips across the cloth", float(strips), ""), Sum("joins", float(strips - 1), "")]
    # A half band is sewn to the half garment's edges; one drawn whole to its half is twice as long by that.
    lies = "gathered" if ratio > 1 else "the band is stretched to the edge" if ratio < 1 else ""
    name = params.kind.value
    pattern = sewn_on(context, context.garment, made, chain, context.named("sewn_edge"), name, lies=lies)
    return Outcome(pattern, tuple(told), (made.name, context.named("sewn_edge")))


def _share_of_edge(
    context: Context, params: AddBand, chain: tuple[Span, ...], around: float
) -> tuple[float, tuple[Sum, ...]]:
    """Return a strip's length as a share of its edge, and what it was reckoned from."""
    if params.kind is Band.SKIRT:
        widths = params.widths * params.cloth_width
        if widths < around:
            raise StepRefused(
                f"{cm(widths)} of cloth do not go around a waist of {cm(around)}.",
                fix="Take more widths, or wider cloth.",
                where=(chain[0].along,),
            )
        return widths / around, (Sum("widths of the cloth", float(params.widths), ""),)
    if params.kind is Band.WAISTBAND and params.without_gathers and _is_waist(context, chain):
        full = min(context.garment.fullness("waist"), around / 2)
        return params.ratio * (around - full) / around, (Sum("gathers, left out", full),) if full else ()
    if params.kind not in BY_RATIO:
        return 1.0, ()
    share = _passing_head(context, params, around)
    less = (Sum("so that it passes the head, not times", params.ratio, ""),) if share != params.ratio else ()
    return share, less


def _passing_head(context: Context, params: AddBand, around: float) -> float:
    """Return a band's length as a share of its edge: a knit neckband is never so short that it does not pass the head."""
    stretch = context.garment.stretch / 100
    if params.kind is not Band.NECKBAND or stretch <= 0 or params.overlap or not around:
        return params.ratio
    head = context.body.get("head_girth", 0.0) + (HEAD_SPARE if "head_girth" in context.body else 0.0)
    return max(params.ratio, min(head / (1 + stretch) / around, 1.0))


def _is_waist(context: Context, chain: tuple[Span, ...]) -> bool:
    pieces = [(context.piece_with(span.start), span.along) for span in chain]
    return all(e.role is Role.WAIST for piece, line in pieces for e in piece.edges if e.lineage == line)


def describe(params: AddBand) -> str:
    """Return the step in the maker's words."""
    along = " and ".join(line_words(line.along) for line in params.edges)
    if params.kind is Band.SKIRT:
        widths = f"{params.widths} × {cm(params.cloth_width)} of cloth"
        return f"Rectangle skirt on {along}: {widths}, {cm(params.height, 2)} long"
    share = f"{params.ratio:g} × the edge, " if params.kind in BY_RATIO else ""
    return f"{TITLES[params.kind]} on {along}: {share}{cm(params.height, 2)} high"


KINDS = {
    Role.NECK: (Band.NECKBAND, Band.STAND, Band.BINDING, Band.RUFFLE, Band.TIE),
    Role.WAIST: (Band.WAISTBAND, Band.ELASTIC, Band.RUFFLE, Band.TIE),
    Role.ARMHOLE: (Band.BINDING, Band.RUFFLE),
}


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer the strips that suit the edge, along its whole round: both halves of a neckline, a waist or a hem."""
    if subject.kind is not Kind.LINE or subject.piece is None or subject.span is None or subject.role is None:
        return
    sleeve = is_sleeve(subject.piece)
    if subject.role is Role.CENTRE_FRONT and subject.piece.region is Region.UPPER:
        edges = list(down_the_front(pattern, subject))
        if edges:
            words = "Add: front band, round the neck and down both fronts"
            yield Offer(words, {"kind": "front_band", "edges": edges, "height": USUAL[Band.FRONT_BAND][1]})
        return
    if subject.role is Role.CUT_EDGE and subject.piece.corner(Corner.WAIST_SIDE) and _is_highest(subject):
        of_waist, height = USUAL[Band.ELASTIC]
        ring = {"kind": "elastic", "edges": [subject.line()], "ratio": of_waist, "height": height}
        yield Offer("Add: elastic ring", ring)
        return
    hem = (Band.CUFF, Band.RUFFLE, Band.ELASTIC) if sleeve else (Band.HEM_BAND, Band.RUFFLE)
    kinds = KINDS.get(subject.role, hem if subject.role is Role.HEM else ())
    edges = [subject.line()] if sleeve else list(_all_round(pattern, subject))
    for kind in kinds if edges else ():
        ratio_of, height = USUAL[kind]
        share = {"ratio": ratio_of} if kind in BY_RATIO else {}
        yield Offer(f"Add: {TITLES[kind].lower()}", {"kind": kind.value, "edges": edges, **share, "height": height})
    if subject.role is Role.WAIST and subject.piece.region is Region.UPPER and not pattern.seams_of(SeamKind.WAIST):
        yield Offer("Add: skirt, a rectangle of whole cloth widths", {"kind": "skirt", "edges": edges, "height": 55.0})


def _all_round(pattern: Readable, subject: Subject) -> Iterator[dict[str, str]]:
    """Yield the lines of the same role on the pieces that stand beside the one pointed at, front before back."""
    found = {}
    region = subject.piece.region if subject.piece else None
    for piece in pattern.pieces:
        for lineage in dict.fromkeys(e.lineage for e in piece.edges if e.role is subject.role):
            span = run_of(pattern, piece, lineage)
            if span is not None and piece.region is region and on_body(piece):
                found[lineage] = {"start": span.start, "end": span.end, "along": span.along}
    yield from found.values()


def _is_highest(subject: Subject) -> bool:
    """Return whether a line lies at the top of its piece."""
    assert subject.piece is not None
    highest = max(y for _, y in subject.piece.outline())
    own = [e for e in subject.piece.edges if e.lineage == subject.name]
    return all(min(e.curve.start[1], e.curve.end[1]) >= highest - FLATNESS for e in own)


OPERATION = Operation(
    key="add_band",
    version=2,
    # Before, a waistband was as long as its edge, gathers and all, and a binding lay on the straight thread.
    upgrades={1: lambda params: {**params, "without_gathers": False, "bias": False}},
    title="Add a band, cuff, binding or ruffle",
    params=AddBand,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.ADDED,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("bodice", "sleeve"),
    examples=(
        {
            "kind": "neckband",
            "edges": (
                {"start": "front.neck_shoulder", "end": "front.neck_cf", "along": "front.neck"},
                {"start": "back.neck_shoulder", "end": "back.neck_cb", "along": "back.neck"},
            ),
        },
        {
            "kind": "cuff",
            "edges": ({"start": "sleeve.wrist_back", "end": "sleeve.wrist_front", "along": "sleeve.hem"},),
            "ratio": 0.9,
            "height": 6.0,
        },
        {
            "kind": "ruffle",
            "edges": ({"start": "front.waist_cf", "end": "front.waist_side", "along": "front.waist"},),
            "ratio": 2.0,
            "height": 12.0,
        },
        {
            "kind": "front_band",
            "edges": (
                {"start": "back.neck_cb", "end": "back.neck_shoulder", "along": "back.neck"},
                {"start": "front.neck_shoulder", "end": "front.neck_cf", "along": "front.neck"},
                {"start": "front.neck_cf", "end": "front.waist_cf", "along": "front.centre"},
            ),
            "height": 3.0,
        },
        {
            "kind": "skirt",
            "edges": (
                {"start": "front.waist_cf", "end": "front.waist_side", "along": "front.waist"},
                {"start": "back.waist_side", "end": "back.waist_cb", "along": "back.waist"},
            ),
            "height": 55.0,
            "widths": 2,
        },
        {
            "kind": "binding",
            "edges": (
                {"start": "front.neck_shoulder", "end": "front.neck_cf", "along": "front.neck"},
                {"start": "back.neck_shoulder", "end": "back.neck_cb", "along": "back.neck"},
            ),
            "ratio": 1.0,
            "height": 1.0,
        },
    ),
)
