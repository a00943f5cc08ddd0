"""Trousers, front and back: two back darts, a front dart or a pleat on the crease, legs upright on their creases.

The crotch seam is as long as it was taken: the back fork gives first, then the rise of the centre back, then its slant.
Common practice; the figures are tuned over many bodies.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from pathlib import Path

from izett.drafting.hip import HIP_SHEET, DrawnWaist, tell_tight_high_hip, upright, waist_edges
from izett.drafting.method import Method, Notice, Tell
from izett.drafting.schools import MEASURES_USED
from izett.drafting.standard import as_block
from izett.drafting.trousers.half import Leg, at_crotch, high_hip, hip_side, inseam, leg, waist_of
from izett.drafting.waistline import intakes, refuse_crowded
from izett.errors import DraftRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.point import between
from izett.geometry.root import root
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern, Seam, matching
from izett.pattern.facts import Region, Role, SeamKind, Zone
from izett.pattern.piece import Edge, LevelLine, Piece, Span
from izett.rules.formula import clamp
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: cm. How far the back fork may leave an eighth of the hip for the crotch seam's sake.
FORK_GIVES = 2.0
#: cm. How far the fork may be lowered, and the back waist raised at the side, so that seams are equal.
DROPS, SIDE_RISES = (0.0, 6.0), (-4.0, 6.0)
#: cm. A crotch seam that misses its length by more is refused.
CROTCH_MISSES = 0.5
#: cm. A pleat's fold lines are marked so far down from the waist.
PLEAT = 8.0
#: cm. So much of a difference the inseams may have.
INSEAM_MISSES = 0.05
LEAST_THIGH_EASE = 4.0
#: The back's share of the slopes with which both crotch curves leave the fork: it lies flatter than the front. By eye.
BACK_SLOPE = 0.38

PARTS = ("trouser_front", "trouser_back")
WAIST_SPANS = (
    Span("trouser_front.waist_side", "trouser_front.waist_cf", "trouser_front.waist"),
    Span("trouser_back.waist_side", "trouser_back.waist_cb", "trouser_back.waist"),
)


@dataclass(frozen=True, slots=True)
class Half:
    """A leg with its waist."""

    leg: Leg
    waist: DrawnWaist


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Draft front and back.

    Raises:
        DraftRefused: the levels, or crotch length and depth, do not belong to one body.
    """
    _refuse_impossible(sums)
    front_leg, back_leg = _legs_to_crotch_length(sums)
    front, back = _waists(sums, front_leg, back_leg)
    _tell_about(sums, tell, front, back)
    pieces = (_piece(sums, front), _piece(sums, back))
    ease = {"hip": sums["hip_ease"], "waist": sums["trouser_waist_ease"]}
    return before.joined(pieces, _seams(sums), ease=ease, along={"waist": WAIST_SPANS})


def _refuse_impossible(sums: Worksheet) -> None:
    levels = [
        ("waist_to_hip", "the hip", sums["waist_to_hip"]),
        ("crotch_depth", "the crotch", sums["trouser_crotch_level"]),
        ("waist_to_knee", "the knee", sums["trouser_knee_level"]),
        ("waist_to_floor", "the hem", sums["trouser_length"]),
    ]
    apart = (2.0, 10.0, 5.0)
    for (above, upper, a), (below, lower, b), least in zip(levels, levels[1:], apart, strict=False):
        if b - a < least:
            raise DraftRefused(
                f"Below the waist {upper} lies at {cm(a)} and {lower} at {cm(b)}: the legs cannot be drawn.",
                fix="Retake both from the same waist line.",
                where=(above, below),
            )


def _legs(sums: Worksheet) -> tuple[Leg, Leg]:
    """Return both legs, the back fork dropped until the inseams match; the crotch seam is written down."""
    front_inner = inseam(sums, "front", 0.0)
    aim = front_inner.curve.length - sums["back_inseam_shorter"]

    def missed(drop: float) -> float:
        return inseam(sums, "back", drop).curve.length - aim

    sums.settle("trouser_back_drop", _nearest(missed, *DROPS))
    back_inner = inseam(sums, "back", sums["trouser_back_drop"])
    over = back_inner.curve.length - aim
    sums.settle("trouser_back_drop", sums["trouser_back_drop"], residual=over)
    if abs(over) > INSEAM_MISSES and "trouser_back_drop" not in sums.overrides:
        raise DraftRefused(
            f"From the fork to the knee the back inseam is {cm(over)} too long for the front: the leg narrows too fast.",
            fix="Retake the hip and waist to knee, or add knee ease.",
            where=("hip_girth", "waist_to_knee", "knee_ease"),
        )
    # Sewn at the inseam the two crotch curves run on into each other: their slopes add up to the two leans.
    slopes = front_inner.lean + back_inner.lean
    back = leg(sums, "back", back_inner, BACK_SLOPE * slopes)
    front = leg(sums, "front", front_inner, (1 - BACK_SLOPE) * slopes)
    sums.settle("crotch_seam", front.crotch_seam + back.crotch_seam)
    return front, back


def _nearest(missed: Callable[[float], float], low: float, high: float) -> float:
    """Return where `missed` is nothing between the bounds, or the bound nearer to that."""
    at_low, at_high = missed(low), missed(high)
    if at_low * at_high < 0:
        return root(missed, low, high, within=1e-9)
    return low if abs(at_low) <= abs(at_high) else high


def _legs_to_crotch_length(sums: Worksheet) -> tuple[Leg, Leg]:
    """Return both legs with the crotch seam as long as it was taken."""
    eighth = sums["hip_girth"] / 8
    sums.settle("trouser_back_fork", eighth)
    legs = _legs(sums)
    if not sums.has("crotch_length"):
        return legs
    aim = sums["crotch_length"] + 2 * sums["crotch_depth_ease"]
    reason = "changed so that the crotch seam is as long as it was taken"

    def fork(value: float) -> None:
        condition = "the whole crotch seam is crotch length and twice the crotch depth ease"
        sums.settle("trouser_back_fork", value, condition=condition)

    slants = sums.sheet.allowances["usual_slant"]
    rises = sums.sheet.allowances["trouser_back_rise"]
    ways: tuple[tuple[str, Callable[[float], None], float, float], ...] = (
        ("trouser_back_fork", fork, eighth - FORK_GIVES, eighth + FORK_GIVES),
        ("trouser_back_rise", lambda v: sums.choose("trouser_back_rise", v, reason=reason), rises.low, rises.high),
        (
            "trouser_slant",
            lambda v: sums.choose("trouser_slant", v, reason=reason),
            min(slants.low, sums["trouser_slant"]),
            slants.high,
        ),
    )
    for symbol, change, low, high in ways:
        if abs(sums["crotch_seam"] - aim) < 1e-6 or symbol in sums.overrides:
            continue
        change(_nearest(_crotch_missed(sums, change, aim), low, high))
        legs = _legs(sums)
    missed = sums["crotch_seam"] - aim
    sums.settle(
        "crotch_seam",
        sums["crotch_seam"],
        residual=missed,
        condition="it is crotch length and twice the crotch depth ease",
    )
    if abs(missed) > CROTCH_MISSES:
        raise DraftRefused(
            f"The crotch seam comes to {cm(sums['crotch_seam'])}, and the body needs {cm(aim)}: fork, rise and slant "
            "cannot give more.",
            fix="Retake crotch length or crotch depth; they do not belong to one body.",
            where=("crotch_length", "crotch_depth", "waist_to_hip"),
        )
    return legs


def _crotch_missed(sums: Worksheet, change: Callable[[float], None], aim: float) -> Callable[[float], float]:
    def missed(value: float) -> float:
        change(value)
        _legs(sums)
        return sums["crotch_seam"] - aim

    return missed


def _waists(sums: Worksheet, front_leg: Leg, back_leg: Leg) -> tuple[Half, Half]:
    """Return both halves with their waists, the back's side raised until the side seams are equal."""
    front_shares = intakes(sums["trouser_front_intake"], largest=sums["largest_trouser_front_dart"], smallest=1e-9)
    crease = front_leg.crease - front_leg.centre.start[0]
    waist, extra = waist_of(sums, front_leg, sums["trouser_front_side_rise"], front_shares, crease)
    front = Half(front_leg, waist)
    sums.settle("trouser_front_waist_curve", extra, residual=waist.length - sums["trouser_front_waist"])
    aim = hip_side(sums, front_leg, waist).length + front_leg.side.length
    shares = _back_darts(sums)

    def drawn(rise: float) -> tuple[DrawnWaist, float]:
        return waist_of(sums, back_leg, rise, shares, None)

    def missed(rise: float) -> float:
        return hip_side(sums, back_leg, drawn(rise)[0]).length + back_leg.side.length - aim

    rise = _nearest(missed, *SIDE_RISES)
    sums.settle("trouser_back_side_rise", rise)
    sums.settle("trouser_back_side_rise", rise, residual=missed(sums["trouser_back_side_rise"]))
    waist, extra = drawn(sums["trouser_back_side_rise"])
    sums.settle("trouser_back_waist_curve", extra, residual=waist.length - sums["trouser_back_waist"])
    refuse_crowded(
        (*front.waist.panels, *waist.panels), sums["hip_girth"] - sums["waist_girth"], over="hip", under="waist"
    )
    return front, Half(back_leg, waist)


def _back_darts(sums: Worksheet) -> list[float]:
    """Return the back's intakes: two, unless they would be too small or too large; none goes to the side's line."""
    whole, least = sums["trouser_back_intake"], sums["smallest_trouser_dart"]
    two = whole / 2 if whole / 2 >= least else whole
    return intakes(whole, largest=clamp(two, least, sums["largest_trouser_back_dart"]), smallest=least)


def _tell_about(sums: Worksheet, tell: Tell, front: Half, back: Half) -> None:
    sums.settle("thigh_ease", at_crotch(front.leg) + at_crotch(back.leg) - sums["thigh_girth"])
    wide = high_hip(sums, front.leg, front.waist) + high_hip(sums, back.leg, back.waist)
    sums.settle("trouser_high_hip_ease", 2 * wide - sums["high_hip_girth"])
    if sums["thigh_ease"] < LEAST_THIGH_EASE:
        tell(
            Notice(
                "thigh-tight",
                f"At the crotch the leg has {cm(sums['thigh_ease'])} over a thigh of {cm(sums['thigh_girth'])}; "
                f"{LEAST_THIGH_EASE:g} are needed to stride. Retake the thigh, or add hip ease.",
                ("thigh_girth", "hip_ease", "hip_girth"),
            )
        )
    tell_tight_high_hip(sums, tell, "trouser_high_hip_ease", "trousers")


def _piece(sums: Worksheet, half: Half) -> Piece:
    drawn, waist = half.leg, half.waist
    part, centre = f"trouser_{drawn.part}", "cf" if drawn.part == "front" else "cb"
    role = Role.CENTRE_FRONT if drawn.part == "front" else Role.CENTRE_BACK
    waist_ring, darts = waist_edges(part, waist, ends=(f"{part}.waist_side", f"{part}.waist_{centre}"))
    pleated = drawn.part == "front" and sums.school("front_fullness") == "pleat"
    if pleated:
        darts = [replace(dart, sewn=False) for dart in darts]
    ring = (
        (Role.INSEAM, "inseam", "fork", "knee_inseam", drawn.inseam),
        (Role.INSEAM, "inseam", "knee_inseam", "hem_inseam", drawn.below),
        (Role.HEM, "hem", "hem_inseam", "hem_side", drawn.hem),
        (Role.SIDE, "side", "hem_side", "knee_side", drawn.side_below.reversed()),
        (Role.SIDE, "side", "knee_side", "hip_side", drawn.side.reversed()),
        (Role.SIDE, "side", "hip_side", "waist_side", hip_side(sums, drawn, waist).reversed()),
    )
    # From where the waist line ends, to the last bit: it was drawn on turned paper.
    centre_seam = straight(waist.on_paper(waist.panels[0].start), upright(drawn.centre.end))
    level, hem = -sums["trouser_crotch_level"], -sums["trouser_length"]
    hip = -sums["waist_to_hip"]
    return as_block(
        Piece(
            name=part,
            title=f"Trouser {drawn.part}",
            part=part,
            cut=2,
            on_fold=None,
            grain=((drawn.crease, 0.9 * hem), (drawn.crease, 1.1 * level)),
            edges=(
                Edge(role, f"{part}.centre", f"{part}.waist_{centre}", f"{part}.crotch_top", centre_seam),
                Edge(Role.CROTCH, f"{part}.crotch", f"{part}.crotch_top", f"{part}.fork", drawn.crotch.mapped(upright)),
                *(
                    Edge(r, f"{part}.{n}", f"{part}.{a}", f"{part}.{b}", curve.mapped(upright))
                    for r, n, a, b, curve in ring
                ),
                *waist_ring,
            ),
            darts=tuple(darts),
            lines=(
                LevelLine("hip", ((0.0, hip), (drawn.hip, hip))),
                LevelLine("crease", ((drawn.crease, hem), (drawn.crease, level))),
                *(_pleat([edge.curve for edge in waist_ring if edge.is_leg], level) if pleated else ()),
            ),
        ),
        Zone(drawn.part),
        Region.LEGS,
    )


def _pleat(legs: Sequence[Curve], level: float) -> Iterator[LevelLine]:
    """Yield what is marked of a pleat: its two fold lines, upright from the waist, and the crease that runs into it."""
    for first, second in zip(legs[::2], legs[1::2], strict=True):
        a, b = first.start, second.end
        middle = between(a, b, 0.5)
        yield LevelLine("pleat", (a, (a[0], a[1] - PLEAT)))
        yield LevelLine("pleat", (b, (b[0], b[1] - PLEAT)))
        yield LevelLine("pleat crease", (middle, (middle[0], level)))


def _seams(sums: Worksheet) -> tuple[Seam, ...]:
    shorter = sums["back_inseam_shorter"]
    return (
        Seam("trouser_side", matching(PARTS, "side", "hem_side", "waist_side"), (0.0, 0.0), kind=SeamKind.SIDE),
        Seam(
            "inseam",
            matching(PARTS, "inseam", "hem_inseam", "fork"),
            (-shorter, -shorter),
            "the back is stretched in above the knee" if shorter else "",
            kind=SeamKind.INSEAM,
        ),
    )


METHOD = Method(
    key="trousers",
    title="Trousers",
    sheet=borrow(
        load_sheet(MEASURES_USED, HIP_SHEET, Path(__file__).with_suffix(".toml")),
        estimates(),
        also=("high_hip_girth", "waist_to_high_hip", "thigh_girth"),
        never=("waist_girth", "hip_girth", "bust_girth"),
    ),
    requires=(("waist_girth",), ("hip_girth",), ("height", "crotch_depth"), ("height", "waist_to_floor")),
    draft=draft,
    clothes=("below",),
)
