"""A plan changed by hand: a piece put elsewhere, turned or turned over, and drawn up to what it nearly touches.

What snaps: to the fold, always, what is cut on one; to a neighbour, to the edge of the cloth and to its beginning, what lies
within a finger's breadth of it; out of a neighbour, what lies over it by no more. The grain is never left: only poses that
the piece may lie in are offered. What is then wrong with the plan is told, and the piece stays where it was put.
"""

from dataclasses import replace

import numpy as np
import shapely

from izett.cutting.lay.columns import Ground, Spot, grown
from izett.cutting.lay.cutouts import Outline, Pose
from izett.cutting.lay.plan import Laid, Plan, grounds_of, in_order
from izett.cutting.lay.settling import slide
from izett.cutting.lay.sound import Wrong, wrong_with
from izett.errors import UnknownName

#: cm. How near a piece must be to be drawn up to something: a finger's breadth.
NEAR = 2.0
#: In how many steps a piece is moved out of another one; cm², what overlaps by less touches.
STEPS, HAIR = 20, 1e-3


def moved(
    plan: Plan,
    number: int,
    *,
    across: float,
    along: float,
    turn: float | None = None,
    flipped: bool | None = None,
    snap: bool = True,
) -> Plan:
    """Return a plan with one piece put elsewhere.

    Args:
        plan: the plan.
        number: of the piece, in the order in which the plan has them.
        across, along: by how much it is moved over the cloth, cm.
        turn, flipped: how it lies from now on; as it did, where None.
        snap: whether it is drawn up to what it nearly touches.

    Raises:
        UnknownName: there is no such piece on the plan, or it may not lie so.
    """
    at = number
    for place, laid in enumerate(plan.laid):
        if at < len(laid.spots):
            new = _put(laid, at, plan, across, along, turn, flipped, snap=snap)
            parts = [(one.section, new if i == place else one.spots) for i, one in enumerate(plan.laid)]
            return Plan(plan.cloth, plan.fold, in_order(parts))
        at -= len(laid.spots)
    raise UnknownName("There is no such piece on this plan.", fix="Load the page again.", where=(str(number),))


def faults_of(plan: Plan) -> list[Wrong]:
    """Return what is wrong with a plan, the numbers of pieces in the order in which it has them."""
    found: list[Wrong] = []
    before = 0
    for laid in plan.laid:
        grounds = grounds_of(laid.section.bed, plan.cloth)
        for wrong in wrong_with(laid.spots, grounds):
            found.append(replace(wrong, spots=tuple(before + i for i in wrong.spots)))
        before += len(laid.spots)
    return found


def _put(
    laid: Laid,
    at: int,
    plan: Plan,
    across: float,
    along: float,
    turn: float | None,
    flipped: bool | None,
    *,
    snap: bool,
) -> list[Spot]:
    spots = list(laid.spots)
    spot, strips = spots[at], laid.section.bed.strips
    mirrored = strips[spot.strip].fold == strips[spot.strip].right
    pose = _pose(spot, turn, flipped, mirrored=mirrored)
    # The middle of the piece goes where the hand puts it, and says on which strip it lies.
    side = -across if mirrored else across
    x = spot.x + side + (spot.pose.width - pose.width) / 2
    y = max(spot.y + along + (spot.pose.height - pose.height) / 2, 0.0)
    new = Spot(spot.cutout, pose, spot.strip, x, y)
    if len(strips) > 1 and not 0 <= x + pose.width / 2 <= strips[spot.strip].width:
        other = strips[1 - spot.strip]
        gap = strips[1].left - strips[0].right
        new = replace(new, strip=1 - spot.strip, x=strips[spot.strip].width + gap + other.width - x - pose.width)
    grounds = grounds_of(laid.section.bed, plan.cloth)
    if new.cutout.on_fold:
        new = replace(new, x=0.0)
    if snap:
        others = [one for i, one in enumerate(spots) if i != at and one.strip == new.strip]
        new = _drawn_up(new, others, grounds[new.strip])
    spots[at] = new
    return spots


def _pose(spot: Spot, turn: float | None, flipped: bool | None, *, mirrored: bool) -> Pose:
    wanted_turn = spot.pose.turn if turn is None else (-turn) % 360 if mirrored else turn % 360
    wanted_flip = spot.pose.flipped if flipped is None else flipped != mirrored
    for pose in spot.cutout.poses:
        if (pose.turn, pose.flipped) == (wanted_turn, wanted_flip):
            return pose
    raise UnknownName(
        f"{spot.cutout.title} may not lie so: its grain, the nap or its pair forbids it.",
        fix="Turn it the other way, or say of the piece that it is free of the grain.",
        where=(spot.cutout.piece,),
    )


def _drawn_up(spot: Spot, others: list[Spot], ground: Ground) -> Spot:
    """Return a spot out of what it lies over by little, then up to what it nearly touches: along first, then across."""
    laid = [np.add(grown(one.pose, ground.gap / 2), (one.x, one.y)) for one in others]
    spot = _out_of(spot, laid, ground)
    for along in (True, False):
        if not along and spot.cutout.on_fold:
            continue
        by = _nearest(spot, laid, ground, along=along)
        spot = replace(spot, y=spot.y + by) if along else replace(spot, x=spot.x + by)
    return spot


def _ways(outline: Outline, *, along: bool, back: bool) -> Outline:
    """Return an outline seen so that a slide goes against its second axis."""
    seen = outline if along else outline[:, ::-1]
    return seen if back else seen * (1.0, -1.0)


def _nearest(spot: Spot, laid: list[Outline], ground: Ground, *, along: bool) -> float:
    """Return by how much a spot is drawn up: to the nearer of what lies before and behind it, within reach."""
    own = np.add(grown(spot.pose, ground.gap / 2), (spot.x, spot.y))
    room = {
        True: spot.y if along else spot.x,
        False: float("inf") if along else ground.width - spot.x - spot.pose.width,
    }
    found: list[float] = []
    for back in (True, False):
        others = [_ways(one, along=along, back=back) for one in laid]
        free = min(room[back], slide(_ways(own, along=along, back=back), *others))
        if 0 <= free <= NEAR:
            found.append(-free if back else free)
        elif -NEAR <= room[back] < 0:
            found.append(-room[back] if back else room[back])
    return min(found, key=abs, default=0.0)


def _out_of(spot: Spot, laid: list[Outline], ground: Ground) -> Spot:
    """Return a spot moved out of others by the least way of four, where that is little; else as it is."""
    if not _over(spot, laid, ground):
        return spot
    best: tuple[float, Spot] | None = None
    for dx, dy in ((0.0, 1.0), (1.0, 0.0), (-1.0, 0.0), (0.0, -1.0)):
        if dx and spot.cutout.on_fold:
            continue
        for step in range(1, STEPS + 1):
            by = NEAR * step / STEPS
            tried = replace(spot, x=spot.x + dx * by, y=spot.y + dy * by)
            if tried.y < 0 or not 0 <= tried.x <= ground.width - tried.pose.width:
                break
            if not _over(tried, laid, ground):
                if best is None or by < best[0]:
                    best = by, tried
                break
    return spot if best is None else best[1]


def _over(spot: Spot, laid: list[Outline], ground: Ground) -> bool:
    own = shapely.polygons(np.add(grown(spot.pose, ground.gap / 2), (spot.x, spot.y)))
    return any(float(shapely.area(shapely.intersection(own, shapely.polygons(o)))) > HAIR for o in laid)
