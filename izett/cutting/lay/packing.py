"""Between the plan and the packer: cutouts as items, those on the fold as a chain, and back."""

import subprocess
from collections.abc import Generator, Sequence
from dataclasses import dataclass, replace
from random import Random

import numpy as np
import shapely

from izett.cutting.lay.columns import Ground, Spot, length_of
from izett.cutting.lay.cutouts import Cutout, Outline, Pose
from izett.cutting.lay.packer import THIN, Found, Item, Packed, begun, packings
from izett.cutting.lay.settling import LARGER, roomy, settled, slide

CHAIN = "chain"
#: What is longer than the plan that there is by more than this is not slid together.
WORTH_SLIDING = 1.01


@dataclass(frozen=True, slots=True)
class _Link:
    """A cutout of the chain: its pose, and how far along the chain it lies."""

    cutout: Cutout
    pose: Pose
    along: float


class Packing:
    """The cutouts of a strip as the packer gets them, and what it finds as spots.

    Args:
        ground, strip: the strip and its number.
        spots: how its cutouts lie already; which of them are turned over, and how the chain runs, is left so, or is as
            the seed has it.
        seed, looks: as the packer has them.
    """

    def __init__(self, ground: Ground, strip: int, spots: Sequence[Spot], *, seed: int, looks: int) -> None:
        random = Random(seed)
        self._ground, self._strip, self._seed, self._looks = ground, strip, seed, looks
        # What comes is slid together: it may still be longer than what there is.
        self._below = length_of(spots) * WORTH_SLIDING
        self._width = ground.width + ground.gap + 2 * LARGER
        self._links = _chain([spot for spot in spots if spot.cutout.on_fold], ground, random)
        self._loose = [spot.cutout for spot in spots if not spot.cutout.on_fold]
        self._process: subprocess.Popen[str] | None = None
        self._starts = [_over(spot, random) for spot in spots if not spot.cutout.on_fold]

    def found(self) -> Generator[Found]:
        """Yield what the packer finds, better and better."""
        items = [
            Item(str(i), _turned(roomy(start, self._ground.gap)), turns)
            for i, (start, turns) in enumerate(self._starts)
        ]
        if self._links:
            items.append(Item(CHAIN, _turned(_chain_outline(self._links, self._ground, self._width)), [0.0]))
        self._process = begun(self._width + THIN, items, below=self._below, seed=self._seed, looks=self._looks)
        return packings(self._process)

    def stop(self) -> None:
        """End the packer, wherever it is: who waits for it then finds that it has ended."""
        if self._process is not None:
            self._process.kill()

    def spots(self, found: Found) -> list[Spot]:
        """Return what was found as spots, slid together."""
        edge = self._ground.gap / 2 + LARGER
        laid: list[Spot] = []
        for one in found.packed:
            if one.key == CHAIN:
                start = one.along - edge
                laid += [Spot(k.cutout, k.pose, self._strip, 0.0, k.along + start) for k in self._links]
                continue
            at = int(one.key)
            laid.append(_put_back(self._loose[at], self._starts[at][0], one, self._ground, self._strip))
        low = min(spot.y for spot in laid)
        return settled([replace(spot, y=spot.y - low) for spot in laid], {self._strip: self._ground})


def _over(spot: Spot, random: Random) -> tuple[Pose, list[float]]:
    """Return the pose that a loose cutout is packed from, and the turns that it may take from there."""
    poses = spot.cutout.poses
    other = [pose for pose in poses if pose.flipped != spot.pose.flipped]
    flipped = spot.pose.flipped if not other or random.random() < 0.7 else not spot.pose.flipped
    own = [pose for pose in poses if pose.flipped == flipped]
    return own[0], [pose.turn - own[0].turn for pose in own]


def _pose(cutout: Cutout, turn: float, flipped: bool) -> Pose:
    return min(
        (pose for pose in cutout.poses if pose.flipped == flipped),
        key=lambda pose: abs((pose.turn - turn + 180) % 360 - 180),
    )


def _turned(outline: Outline) -> list[tuple[float, float]]:
    """Return an outline with lengths first: turned by a quarter, not turned over."""
    return [(float(y), float(-x)) for x, y in outline]


def _put_back(cutout: Cutout, start: Pose, one: Packed, ground: Ground, strip: int) -> Spot:
    """Return where a packed item lies on the strip: turned about its origin, then moved, both in the packer's axes."""
    angle = np.radians(one.turn)
    cos, sin = np.cos(angle), np.sin(angle)
    corners = np.array(_turned(start.outline)) @ np.array([[cos, sin], [-sin, cos]]) + (one.along, one.across)
    pose = _pose(cutout, start.turn + one.turn, start.flipped)
    edge = ground.gap / 2 + LARGER
    x = ground.width + edge - float(corners[:, 1].max())
    # What is just as wide as the strip comes back off it by as much as the outline is larger.
    return Spot(cutout, pose, strip, min(max(x, 0.0), ground.width - pose.width), float(corners[:, 0].min()) - edge)


def _chain(spots: Sequence[Spot], ground: Ground, random: Random) -> list[_Link]:
    """Return what lies on the fold as a chain, as close as it goes: in the order that it lies in, or another."""
    order = sorted(spots, key=lambda spot: spot.y)
    if random.random() < 0.6:
        random.shuffle(order)
    links: list[_Link] = []
    for spot in order:
        pose = spot.pose if random.random() < 0.7 else random.choice(spot.cutout.poses)
        outline = roomy(pose, ground.gap)
        along = 0.0
        if links:
            top = max(float(roomy(k.pose, ground.gap)[:, 1].max()) + k.along for k in links)
            high = np.add(outline, (0.0, top - float(outline[:, 1].min()) + 1.0))
            room = slide(high, *(np.add(roomy(k.pose, ground.gap), (0.0, k.along)) for k in links))
            along = float(high[0, 1] - outline[0, 1]) - room
        links.append(_Link(spot.cutout, pose, along))
    return links


def _chain_outline(links: Sequence[_Link], ground: Ground, width: float) -> Outline:
    """Return the chain in one outline, with the mast that holds it to the fold."""
    edge = ground.gap / 2 + LARGER
    outlines = [np.add(roomy(k.pose, ground.gap), (0.0, k.along)) for k in links]
    low = min(float(o[:, 1].min()) for o in outlines)
    high = max(float(o[:, 1].max()) for o in outlines)
    sliver = shapely.box(-edge, low, -edge + THIN, high)
    mast = shapely.box(-edge, low, width - edge, low + THIN)
    whole = shapely.union_all([sliver, mast, *(shapely.polygons(o) for o in outlines)])
    largest = max(shapely.get_parts(whole), key=shapely.area)
    return np.array(shapely.orient_polygons(largest).exterior.coords)[:-1]
