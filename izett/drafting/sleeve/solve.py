"""Solving the cap to its armhole: height and widths found together, eased within limits, in a stated order."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise

from izett.drafting.method import Adjustment, Notice, Tell
from izett.drafting.sleeve.cap import CapShape, cap_half
from izett.errors import DraftRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Vector, unit
from izett.geometry.root import root, roots
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: Cap height over armhole against sleeve width over armhole, at a cap ease of 2.5: where the search starts.
START = ((0.60, 0.40), (0.70, 0.365), (0.77, 0.33), (0.80, 0.317), (0.85, 0.29), (0.90, 0.25), (1.02, 0.08))
#: A sleeve wider than this times its armhole is tried as one without a cap.
NO_CAP = 0.94
#: A bound is met this far inside it, so that the result keeps it.
HAIR_INSIDE = 1e-6
#: cm. The armhole is lowered or raised by this much at a time.
DROP_STEP = 0.5


@dataclass(frozen=True, slots=True)
class Limits:
    """How far a sleeve may be changed to suit its armhole.

    Attributes:
        cap_ease, bicep_ease: the least and the most, cm.
        drop: the least and the most underarm drop of the body block, cm.
        told: whether a change of the cap or the width is told, or is this sleeve's usual way.
        beyond: by how much the cap's height over the armhole may leave its range before there is no sleeve.
    """

    cap_ease: tuple[float, float]
    bicep_ease: tuple[float, float]
    drop: tuple[float, float]
    beyond: float = 0.01
    told: bool = True


@dataclass(frozen=True, slots=True)
class Cap:
    """A cap solved to its armhole; the halves run from the crown to the underarm, both drawn towards +x."""

    height: float
    front_width: float
    back_width: float
    front: Curve
    back: Curve
    into_end: Vector


def solved_cap(sums: Worksheet, tell: Tell, shapes: tuple[CapShape, CapShape], limits: Limits) -> Cap:
    """Return the cap for the armhole of the worksheet, front shape first.

    Raises:
        Adjustment: the body block's armhole has to change first.
        DraftRefused: no cap suits this armhole.
    """

    drawn: list[Cap] = []

    def ratio() -> float:
        if drawn and sums["sleeve_width"] > NO_CAP * sums["armhole_length"]:
            return 0.0
        drawn[:] = [_cap(sums, shapes)]
        return drawn[0].height / sums["armhole_length"]

    present = ratio()
    low, high = sums["lowest_cap"], sums["highest_cap"]
    if present < low:
        changes = (("cap_ease", limits.cap_ease[1]), ("bicep_ease", limits.bicep_ease[0]))
        present = _towards(sums, ratio, present, low, changes, tell if limits.told else _quietly)
        if present < low:
            _ask(sums, "underarm_drop", DROP_STEP, limits.drop[1])
    elif present > high:
        changes = (("cap_ease", limits.cap_ease[0]), ("bicep_ease", limits.bicep_ease[1]))
        present = _towards(sums, ratio, present, high, changes, tell if limits.told else _quietly)
        if present > high:
            _ask(sums, "underarm_drop", -DROP_STEP, limits.drop[0])
    if not low - limits.beyond <= present <= high + limits.beyond:
        raise _refusal(sums, too_low=present < low)
    cap = drawn[0]
    missed = cap.front.length + cap.back.length - sums["armhole_length"] - sums["cap_ease"]
    sums.settle("cap_height", cap.height, residual=missed)
    sums.settle("front_sleeve_width", cap.front_width, residual=missed)
    return cap


def _quietly(_: Notice) -> None:
    """Tell nothing: the worksheet says why the value was chosen."""


def _towards(
    sums: Worksheet,
    ratio: Callable[[], float],
    present: float,
    bound: float,
    changes: tuple[tuple[str, float], ...],
    tell: Tell,
) -> float:
    """Change one allowance after the other, each by no more than is needed; return the cap's ratio then."""
    way = 1 if present < bound else -1
    for symbol, limit in changes:
        before = sums[symbol]
        if symbol in sums.overrides or (limit - before) * (1 if symbol == "cap_ease" else -1) * way <= 0:
            continue

        def missed(value: float, symbol: str = symbol) -> float:
            sums.choose(symbol, value, reason="changed so that the cap suits the armhole")
            return (ratio() - bound) * way - HAIR_INSIDE

        if missed(limit) >= 0:
            missed(root(missed, before, limit, within=1e-7))
        present = ratio()
        names = {"cap_ease": "cap ease", "bicep_ease": "ease at the upper arm"}
        tell(
            Notice(
                f"{symbol.replace('_', '-')}-changed",
                f"The {names[symbol]} was {'raised' if sums[symbol] > before else 'lowered'} from {before:.1f} to "
                f"{cm(sums[symbol])} so that the cap suits the armhole.",
                (symbol, "bicep_girth", "armhole_depth"),
            )
        )
        if (present - bound) * way >= 0:
            break
    return present


def _ask(sums: Worksheet, symbol: str, step: float, limit: float) -> None:
    """Ask the body block for another armhole, unless it is at its limit or set by hand."""
    value = sums[symbol] + step
    if symbol in sums.overrides or (value - limit) * step > 0:
        return
    raise Adjustment(
        symbol,
        value,
        reason=f"the armhole was {'lowered' if step > 0 else 'raised'} so that the sleeve cap suits it",
        otherwise=_refusal(sums, too_low=step > 0),
    )


def _refusal(sums: Worksheet, *, too_low: bool) -> DraftRefused:
    arm, armhole = sums["bicep_girth"], sums["armhole_length"]
    if too_low:
        return DraftRefused(
            f"The arm of {cm(arm)} is too large for an armhole of {cm(armhole)}: the cap cannot reach it.",
            fix="Deepen the armhole, add bust ease, or use a two-piece or gusset sleeve; retake the upper arm and "
            "the armhole depth.",
            where=("bicep_girth", "armhole_depth", "bust_ease"),
        )
    return DraftRefused(
        f"The arm of {cm(arm)} is too thin for an armhole of {cm(armhole)}: the cap would stand too high.",
        fix="Raise the armhole or add ease at the upper arm; retake the upper arm and the armhole depth.",
        where=("bicep_girth", "armhole_depth", "bicep_ease"),
    )


def _cap(sums: Worksheet, shapes: tuple[CapShape, CapShape]) -> Cap:
    width, armhole = sums["sleeve_width"], sums["armhole_length"]
    half_ease = sums["cap_ease"] / 2
    aims = (sums["front_armhole_length"] + half_ease, sums["back_armhole_length"] + half_ease)

    def at(height: float, front: float) -> Cap:
        sums.settle("cap_height", height)
        taper = (width - sums["sleeve_wrist"]) / 2
        into = unit((-(sums["sleeve_length"] - height), taper))
        halves = (cap_half(height, front, into, shapes[0]), cap_half(height, width - front, into, shapes[1]))
        return Cap(height, front, width - front, *halves, into)

    def missed(height: float, front: float) -> tuple[float, float]:
        cap = at(height, front)
        return cap.front.length - aims[0], cap.back.length - aims[1]

    start = (_start(width / armhole) * armhole, width * aims[0] / sum(aims))
    try:
        height, front = roots(missed, start)
    except ValueError:
        raise _refusal(sums, too_low=width > 0.8 * armhole) from None
    if height <= 0 or not 0.2 * width < front < 0.8 * width:
        raise _refusal(sums, too_low=width > 0.8 * armhole)
    return at(height, front)


def _start(wide: float) -> float:
    for (a, high), (b, low) in pairwise(START):
        if wide <= b:
            return high + (low - high) * (wide - a) / (b - a)
    return START[-1][1]
