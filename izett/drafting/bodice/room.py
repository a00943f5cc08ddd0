"""Room for the arm: what is given up, in which order, until the armhole lets the arm through and suits the frame."""

from collections.abc import Callable
from math import atan2, degrees

from izett.drafting.bodice.frame import Frame, frame_of
from izett.drafting.method import Notice, Tell
from izett.errors import DraftRefused
from izett.geometry.root import root
from izett.rules.formula import clamp
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: The front's share of the armhole width, and how much longer the back armhole may be (cm).
FRONT_SHARE = (0.42, 0.58)
BACK_LONGER = (-0.8, 4.0)
LARGEST_SHIFT = 4.0
#: cm. What a shift leaves at least of the armhole width on the side that gives.
LEFT_BY_SHIFT = 1.5
#: A bound is met this far inside it, so that the result keeps it.
HAIR_INSIDE = 1e-6


#: Armhole length as a share of the bust of the frame: where the drop is changed, and beyond which is no armhole.
ARMHOLE_AIM = (0.385, 0.56)
ARMHOLE_VALID = (0.38, 0.57)
DROP_STEP, DROPS = 0.5, (0.0, 4.5)


#: cm. The side seam's shift above which the maker is told.
TELL_SHIFT = 2.5


def relaxed_frame(sums: Worksheet, tell: Tell) -> Frame:
    """Return the frame after giving the arm its room, sharing the armhole, and setting its depth, in that order."""
    for _ in range(12):
        frame = _shared(sums, _with_room(sums, tell))
        ratio = frame.armhole / sums["frame_bust"]
        step = DROP_STEP if ratio < ARMHOLE_AIM[0] else -DROP_STEP if ratio > ARMHOLE_AIM[1] else 0.0
        drop = sums["underarm_drop"] + step
        if step == 0.0 or not DROPS[0] <= drop <= DROPS[1] or "underarm_drop" in sums.overrides:
            break
        before = sums["underarm_level"]
        sums.choose("underarm_drop", drop, reason="changed so that the armhole suits the bust of the frame")
        if sums["underarm_level"] == before:
            break
    if not ARMHOLE_VALID[0] <= ratio <= ARMHOLE_VALID[1]:
        raise DraftRefused(
            f"The armhole would measure {cm(frame.armhole)} on a frame bust of {cm(sums['frame_bust'])}: "
            f"too {'small' if ratio < ARMHOLE_VALID[0] else 'large'}.",
            fix="Retake the armhole depth, the upper chest, the across widths and the shoulder length.",
            where=("armhole_depth", "high_bust_girth", "across_back", "across_front", "shoulder_length"),
        )
    return frame


def _with_room(sums: Worksheet, tell: Tell) -> Frame:
    """Give the arm its room: first across ease, then narrower across lines, then more bust ease."""
    frame = frame_of(sums)
    reason = "changed so that the armhole is wide enough for the arm"
    limits = (
        ("across_front_ease", 0.0, 1.0),
        ("across_back_ease", 0.0, 1.0),
        ("across_narrowing", 0.03, 0.0),
    )
    for symbol, limit, _ in limits:
        missing = sums["armhole_width_needed"] - frame.room
        if missing <= 0:
            return frame
        if symbol in sums.overrides:
            continue
        if symbol == "across_narrowing":
            share = missing / ((sums["across_back"] + sums["across_front"]) / 2)
            value = min(sums[symbol] + share, limit)
        else:
            value = max(sums[symbol] - missing, limit)
        sums.choose(symbol, value, reason=reason)
        frame = frame_of(sums)
    if frame.room < sums["armhole_width_needed"] and "bust_ease" not in sums.overrides:
        # Twice around: a turned underarm gains less than half of the ease that is added.
        for _ in range(4):
            missing = sums["armhole_width_needed"] - frame.room
            if missing <= 1e-3:
                break
            sums.choose("bust_ease", min(sums["bust_ease"] + 2 * missing, 12.0), reason=reason)
            frame = frame_of(sums)
        tell(
            Notice(
                "bust-ease-raised",
                f"The bust ease was raised to {cm(sums['bust_ease'])} so that the armhole is wide enough for the arm.",
                ("bust_ease", "across_back", "across_front", "bicep_girth"),
            )
        )
    return frame


def _shared(sums: Worksheet, frame: Frame) -> Frame:
    """Shift the side seam by the least that shares the armhole well between front and back."""
    if "side_shift" in sums.overrides:
        sums.settle("side_shift", 0.0, residual=_share_missed(frame))
        return frame

    def at(shift: float) -> Frame:
        sums.settle("side_shift", shift)
        return frame_of(sums)

    start = frame_shift = sums["side_shift"]
    # Shifting towards the front (−) widens the front: each bound gives a one-sided limit of the shift.
    bounds: tuple[tuple[Callable[[Frame], float], float], ...] = (
        (lambda f: f.front_share - FRONT_SHARE[0], -1),
        (lambda f: FRONT_SHARE[1] - f.front_share, 1),
        (lambda f: f.back_longer - BACK_LONGER[0], 1),
        (lambda f: BACK_LONGER[1] - f.back_longer, -1),
    )
    for slack, way in bounds:
        if slack(frame) >= 0:
            continue
        giver = frame.front_room if way > 0 else frame.back_room
        far = way * clamp(giver - LEFT_BY_SHIFT, 0.0, LARGEST_SHIFT)
        start = far
        if slack(at(far)) >= 0:

            def inside(shift: float, slack: Callable[[Frame], float] = slack) -> float:
                return slack(at(shift)) - HAIR_INSIDE

            start = root(inside, frame_shift, far, within=1e-9)
        frame = at(start)
        frame_shift = start
    sums.settle("side_shift", start, residual=_share_missed(frame))
    return frame


def _share_missed(frame: Frame) -> float:
    wide = frame.front_room - clamp(frame.front_share, *FRONT_SHARE) * frame.room
    longer = frame.back_longer - clamp(frame.back_longer, *BACK_LONGER)
    return max(abs(wide), abs(longer))


def tell_about(sums: Worksheet, frame: Frame, tell: Tell) -> None:
    """Tell what the maker should look at: across lines moved, side seam shifted or leaning."""
    for side, half in (("front", frame.front), ("back", frame.back)):
        if half.across_moved > 0.3:
            tell(
                Notice(
                    "across-past-tip",
                    f"The across-{side} line is wider than the shoulder allows: it is drawn {cm(half.across_moved)} narrower.",
                    (f"across_{side}", "shoulder_length"),
                )
            )
    if abs(sums["side_shift"]) > TELL_SHIFT:
        tell(
            Notice(
                "side-seam-moved",
                f"The side seam was moved {cm(abs(sums['side_shift']))} towards the "
                f"{'back' if sums['side_shift'] < 0 else 'front'} to share the armhole: check the front bust arc and the across widths.",
                ("front_bust_arc", "across_front", "across_back"),
            )
        )
    lean = degrees(atan2(abs(sums["side_take"]), sums["bust_line_level"]))
    if lean > 15:
        tell(
            Notice(
                "side-leans",
                f"The waist exceeds the bust by {cm(-2 * sums['waist_shaping'])} with its ease and the side seam leans "
                f"{lean:.0f}°: a straight or A-line block suits better.",
                ("waist_girth", "bust_girth"),
            )
        )
