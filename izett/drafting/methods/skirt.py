"""The straight skirt, front and back, to its own waistband or to the waist of a bodice drafted with it.

The hip has its ease, the waist is met by side seams and darts, their number by rule. Joined to a bodice, front and back
take its sewn waists and the first darts lie where its darts lie; where the darts' shares clamp, the hip's split moves,
never the waist. Common practice; the figures are tuned over many bodies.
"""

from pathlib import Path

from izett.drafting.hip import (
    HIP_SHEET,
    DrawnWaist,
    drawn_waist,
    hip_curve,
    lean_of,
    tell_tight_high_hip,
    upright,
    waist_edges,
    wide_at,
)
from izett.drafting.method import Method, Notice, Tell
from izett.drafting.schools import MEASURES_USED
from izett.drafting.standard import as_block
from izett.drafting.waistline import NARROWEST_PANEL, WaistDart, intakes, refuse_crowded
from izett.errors import DraftRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.point import Point
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern, Seam, matching
from izett.pattern.facts import Region, Role, SeamKind, Zone
from izett.pattern.piece import Edge, LevelLine, Piece, Span
from izett.pattern.sewn import walk
from izett.rules.formula import clamp
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: Shares of all darts that the front may have where the bodice's waist decides.
FRONT_SHARE = (0.28, 0.40)
#: cm. Each further dart is so much shorter than the one before.
FURTHER_SHORTER = 1.5
#: What is given where the high hip lacks room: darts' depths and the curve's fullness to these, then hip ease.
SHORTEST_DEPTHS = (("skirt_back_dart_depth", 0.35), ("skirt_front_dart_depth", 0.30), ("hip_fullness", 0.55))
MOST_HIP_EASE_ADDED = 4.0
#: cm. The waist meets its length, and the darts each other, to this.
WITHIN = 1e-9
#: cm. Hip over waist beyond which darts no longer shape well.
TOO_MUCH = 65.0

WAIST_SPANS = (
    Span("skirt_front.waist_cf", "skirt_front.waist_side", "skirt_front.waist"),
    Span("skirt_back.waist_side", "skirt_back.waist_cb", "skirt_back.waist"),
)


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Draft the skirt, on the bodice's waist where there is one.

    Raises:
        DraftRefused: hip and waist do not make a skirt with darts.
    """
    on_bodice = _bodice_waists(before)
    _refuse_impossible(sums)
    front, back = _with_high_hip(sums, tell, before, on_bodice)
    if sums["hip_girth"] - sums["waist_girth"] > TOO_MUCH:
        tell(
            Notice(
                "too-much-shaping-below",
                f"The hip is {cm(sums['hip_girth'] - sums['waist_girth'])} fuller than the waist: too much shaping for darts, "
                "panels would sit better.",
                ("hip_girth", "waist_girth"),
            )
        )
    pieces = (_piece(sums, "front", front), _piece(sums, "back", back))
    ease = {"hip": sums["hip_ease"], "waist": sums["skirt_waist"] - sums["waist_girth"]}
    seams = _seams(joined=on_bodice is not None)
    return before.joined(pieces, seams, ease=ease, along={"waist": WAIST_SPANS})


def _refuse_impossible(sums: Worksheet) -> None:
    if sums["skirt_length"] < sums["waist_to_hip"] + 2:
        raise DraftRefused(
            f"The hem would lie {cm(sums['skirt_length'])} under the waist, and the hip at {cm(sums['waist_to_hip'])}.",
            fix="Retake waist to hem and waist to hip; a straight skirt goes below the hip.",
            where=("waist_to_hem", "waist_to_hip"),
        )


def _bodice_waists(before: Pattern) -> tuple[Pattern, float, float] | None:
    """Return the drafted bodice with its sewn half waists, front and back; None where there is none."""
    if "waist" not in before.intent.along or not any(piece.holds("front.waist_cf") for piece in before):
        return None
    front, back = (
        sum(stretch.edge.curve.length for stretch in walk(before.holding(span.start), span))
        for span in before.intent.along["waist"]
    )
    return before, front, back


def _with_high_hip(
    sums: Worksheet, tell: Tell, before: Pattern, on_bodice: tuple[Pattern, float, float] | None
) -> tuple[DrawnWaist, DrawnWaist]:
    """Return front and back after giving the high hip its room: shorter darts, a fuller curve, hip ease, in that order."""
    reason = "changed so that the high hip has room"
    wanted, steps = sums["hip_ease"], 8
    changes: list[tuple[str, float]] = []
    for symbol, limit in SHORTEST_DEPTHS:
        start = sums[symbol]
        changes += [(symbol, start + (limit - start) * n / 4) for n in range(1, 5)]
    changes += [("hip_ease", wanted + MOST_HIP_EASE_ADDED * n / steps) for n in range(1, steps + 1)]
    drawn = _drawn(sums, before, on_bodice)
    for symbol, value in changes:
        if sums["skirt_high_hip_ease"] >= sums["high_hip_least"]:
            break
        if symbol in sums.overrides:
            continue
        sums.choose(symbol, value, reason=reason)
        drawn = _drawn(sums, before, on_bodice)
    if sums["hip_ease"] > wanted:
        tell(
            Notice(
                "hip-ease-raised",
                f"The hip ease was raised to {cm(sums['hip_ease'])} so that the high hip of "
                f"{cm(sums['high_hip_girth'])} has room.",
                ("hip_ease", "high_hip_girth", "waist_to_high_hip"),
            )
        )
    tell_tight_high_hip(sums, tell, "skirt_high_hip_ease", "skirt")
    return drawn


def _drawn(
    sums: Worksheet, before: Pattern, on_bodice: tuple[Pattern, float, float] | None
) -> tuple[DrawnWaist, DrawnWaist]:
    front_waist = _shares(sums, on_bodice)
    back_waist = sums["skirt_waist"] / 2 - front_waist
    darts = _counted(sums)
    level = -before.holding("front.waist_cf").vertex("front.waist_cf")[1] if on_bodice else 0.0
    front, extra_front = _half(sums, "front", (0.0, level), darts[0], front_waist, _first_panel(on_bodice, "front"))
    back, extra_back = _half(
        sums, "back", (0.0, sums["centre_back_drop"]), darts[1], back_waist, _first_panel(on_bodice, "back")
    )
    sums.settle("skirt_front_waist_curve", extra_front, residual=front.length - front_waist)
    sums.settle("skirt_back_waist_curve", extra_back, residual=back.length - back_waist)
    refuse_crowded((*front.panels, *back.panels), sums["hip_girth"] - sums["waist_girth"], over="hip", under="waist")
    _settle_high_hip(sums, (front, back))
    return front, back


def _shares(sums: Worksheet, on_bodice: tuple[Pattern, float, float] | None) -> float:
    """Settle waist, darts and hips of front and back; return the front's half waist."""
    if on_bodice is None:
        sums.settle("skirt_waist", sums["waist_girth"] + sums["skirt_waist_ease"])
        together = sums["skirt_darts_together"]
        front = sums["skirt_front_dart_share"] * together
        if front < sums["smallest_skirt_dart"] or sums["skirt_shaping"] <= 1:
            front = 0.0
        hip = (sums["hip_girth"] + sums["hip_ease"]) / 4 + sums["hip_split"]
        sums.settle("skirt_front_intake", front)
        sums.settle("skirt_front_hip", hip, condition="it is a quarter of hip and ease, and the split")
        return sums["skirt_front_hip"] - sums["skirt_side_take"] - sums["skirt_front_intake"]
    _, front_waist, back_waist = on_bodice
    sums.settle("skirt_waist", 2 * (front_waist + back_waist), condition="it is the bodice's waist as sewn")
    together = sums["skirt_darts_together"]
    quarter = (sums["hip_girth"] + sums["hip_ease"]) / 4 + sums["hip_split"]
    front = clamp(quarter - sums["skirt_side_take"] - front_waist, FRONT_SHARE[0] * together, FRONT_SHARE[1] * together)
    if front < sums["smallest_skirt_dart"]:
        front = 0.0
    sums.settle("skirt_front_intake", front, condition="front waist and darts together make the front hip")
    sums.settle(
        "skirt_front_hip",
        front_waist + sums["skirt_side_take"] + sums["skirt_front_intake"],
        condition="it is the bodice's front waist with the darts and the side",
    )
    return front_waist


def _counted(sums: Worksheet) -> tuple[list[float], list[float]]:
    """Return the intakes of front and back; a back too small for a dart hands its intake to the sides by the curve."""
    return (
        intakes(sums["skirt_front_intake"], largest=sums["largest_skirt_front_dart"], smallest=1e-9),
        intakes(sums["skirt_back_intake"], largest=sums["largest_skirt_back_dart"], smallest=1e-9),
    )


def _first_panel(on_bodice: tuple[Pattern, float, float] | None, part: str) -> float | None:
    """Return how far along the sewn waist the bodice's first dart lies from the centre, cm; None where it has none."""
    if on_bodice is None:
        return None
    piece = on_bodice[0].holding(f"{part}.waist_side")
    first = next((edge for edge in piece.edges if edge.end == f"{part}.waist_a"), None)
    return first.curve.length if first else None


#: Of the quarter waist's reach, where the first dart lies at the nearest and at the farthest.
FIRST_DART_BETWEEN = (0.3, 0.5)


def _half(
    sums: Worksheet, part: str, centre: Point, shares: list[float], aim: float, first_panel: float | None
) -> tuple[DrawnWaist, float]:
    """Return the waist of a half with its darts, and what its curve added; y grows downwards."""
    hip = sums[f"skirt_{part}_hip"]
    rise, take, depth = sums["skirt_side_rise"], sums["skirt_side_take"], sums["waist_to_hip"]
    length = sums[f"skirt_{part}_dart_length"]
    low, high = (share * (hip - take) for share in FIRST_DART_BETWEEN)
    symbol, times = ("apex_span", 2) if part == "front" else ("across_back", 4)
    # A skirt by itself may be drafted from waist and hip alone: nothing above the waist says where its darts lie then.
    known = symbol in sums.taken or "bust_girth" in sums.taken
    usual = clamp(sums[symbol] / times, low, high) if known else (low + high) / 2
    side = (hip - take, -rise)
    if shares:
        # Where the darts are many they move towards the centre, so that paper is left between them.
        room = 1.5 * NARROWEST_PANEL
        usual = max(min(usual, side[0] - len(shares) * (shares[0] + room)), shares[0] / 2 + room)

    def draw(first: float, extra: float) -> DrawnWaist:
        if not shares:
            return drawn_waist(centre, (1.0, 0.0), (side[0] - extra, side[1]), lean_of(take, depth), ())
        grown = [share + extra / len(shares) for share in shares]
        step = (side[0] - first) / len(grown)
        tips = [length - FURTHER_SHORTER * i for i in range(len(grown))]
        darts = [WaistDart(first + i * step, tips[i], intake) for i, intake in enumerate(grown)]
        return drawn_waist(centre, (1.0, 0.0), side, lean_of(take, depth), darts)

    joined = bool(shares) and first_panel is not None
    condition = "it lies under the bust point" if part == "front" else "it lies at a quarter of the across back"
    if joined:
        condition = "it lies where the bodice's dart lies"
    first, extra = usual, 0.0
    for _ in range(60):
        waist = draw(first, extra)
        over = waist.length - aim
        off = first_panel - waist.panels[0].length if joined and first_panel is not None else 0.0
        if abs(over) < WITHIN and abs(off) < WITHIN:
            break
        extra += over
        first += off
    if shares:
        sums.settle(f"skirt_{part}_dart_place", first, condition=condition)
    return waist, extra


def _settle_high_hip(sums: Worksheet, halves: tuple[DrawnWaist, DrawnWaist]) -> None:
    """Write down what the skirt has over the body at the high hip, darts as far as they reach taken out."""
    level = min(sums["waist_to_high_hip"], sums["waist_to_hip"])
    wide = sum(
        wide_at(_side(sums, part, waist), waist, level) for part, waist in zip(("front", "back"), halves, strict=True)
    )
    sums.settle("skirt_high_hip_ease", 2 * wide - sums["high_hip_girth"])


def _side(sums: Worksheet, part: str, waist: DrawnWaist) -> Curve:
    return hip_curve(waist.side, (sums[f"skirt_{part}_hip"], sums["waist_to_hip"]), sums["skirt_side_take"], sums)


def _piece(sums: Worksheet, side: str, waist: DrawnWaist) -> Piece:
    part = f"skirt_{side}"
    centre = "cf" if side == "front" else "cb"
    hip, depth, length = sums[f"skirt_{side}_hip"], sums["waist_to_hip"], sums["skirt_length"]
    curve = _side(sums, side, waist).mapped(upright)
    top = waist.on_paper(waist.panels[0].start)
    waist_ring, darts = waist_edges(part, waist, ends=(f"{part}.waist_side", f"{part}.waist_{centre}"))
    role = Role.CENTRE_FRONT if side == "front" else Role.CENTRE_BACK
    return as_block(
        Piece(
            name=part,
            title=f"Skirt {side}",
            part=part,
            cut=1 if side == "front" else 2,
            on_fold=f"{part}.centre" if side == "front" else None,
            grain=((0.25 * hip, -0.9 * length), (0.25 * hip, -1.2 * depth)),
            edges=(
                Edge(
                    role,
                    f"{part}.centre",
                    f"{part}.waist_{centre}",
                    f"{part}.hem_{centre}",
                    straight(top, (0.0, -length)),
                ),
                Edge(
                    Role.HEM,
                    f"{part}.hem",
                    f"{part}.hem_{centre}",
                    f"{part}.hem_side",
                    straight((0.0, -length), (hip, -length)),
                ),
                Edge(
                    Role.SIDE,
                    f"{part}.side",
                    f"{part}.hem_side",
                    f"{part}.hip_side",
                    straight((hip, -length), (hip, -depth)),
                ),
                Edge(Role.SIDE, f"{part}.side", f"{part}.hip_side", f"{part}.waist_side", curve.reversed()),
                *waist_ring,
            ),
            darts=tuple(darts),
            lines=(LevelLine("hip", ((0.0, -depth), (hip, -depth))),),
        ),
        Zone(side),
        Region.SKIRT,
    )


def _seams(*, joined: bool) -> tuple[Seam, ...]:
    parts = ("skirt_front", "skirt_back")
    side = Seam("skirt_side", matching(parts, "side", "hem_side", "waist_side"), (0.0, 0.0), kind=SeamKind.SIDE)
    if not joined:
        return (side,)
    bodice = (
        Span("front.waist_cf", "front.waist_side", "front.waist"),
        Span("back.waist_side", "back.waist_cb", "back.waist"),
    )
    return side, Seam("waist", (bodice, WAIST_SPANS), (0.0, 0.0), "", ("bodice", "skirt"), kind=SeamKind.WAIST)


METHOD = Method(
    key="skirt",
    title="Straight skirt",
    sheet=borrow(
        load_sheet(MEASURES_USED, HIP_SHEET, Path(__file__).with_suffix(".toml")),
        estimates(),
        also=("apex_span", "across_back", "high_hip_girth", "waist_to_high_hip"),
        never=("waist_girth", "hip_girth", "bust_girth"),
    ),
    requires=(("waist_girth",), ("hip_girth",)),
    draft=draft,
    joins=("bodice",),
    clothes=("below",),
)
