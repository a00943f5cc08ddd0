"""The tear list: from lengths and widths measured on the form to blocks of muslin, and in which order they are torn.

A block is a panel's longest by its widest, with an allowance each way: 7.5 cm for panels, about 12 cm for whole fronts and
backs, more on the bias and for a train. Muslin is torn across first, a strip as long as its longest block, and each strip
then along the warp into its blocks. Common practice, no single source.
"""

import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from math import ceil
from pathlib import Path
from typing import Any

from izett.errors import UnknownName, ValueOutOfRange
from izett.wording import cm

#: cm. Between these lies what a panel may measure, and how wide muslin is.
SHORTEST, LONGEST = 1.0, 600.0
NARROWEST_MUSLIN, WIDEST_MUSLIN = 40.0, 320.0
#: cm. What is torn off with each selvedge.
SELVEDGE = 1.5
#: cm. Muslin is bought by so much.
SOLD_BY = 10.0


@dataclass(frozen=True, slots=True)
class PanelKind:
    """A kind of block and the allowance (cm) that it is given each way."""

    key: str
    allowance: float


@dataclass(frozen=True, slots=True)
class ToDrape:
    """A panel that is to be draped.

    Attributes:
        key, title: what it is called.
        kind: `panel`, `whole` or `bias`.
        hangs: the upright guide line that it is hung from: `centre` or `balance`.
        bust: whether the bust level is drawn on it.
        length, width: where the form is measured, in words.
    """

    key: str
    title: str
    kind: str
    hangs: str
    bust: bool
    length: str = ""
    width: str = ""


@dataclass(frozen=True, slots=True)
class Drape:
    """A garment as it is draped: the style lines to tape, and its panels."""

    key: str
    title: str
    tape: tuple[str, ...]
    panels: tuple[ToDrape, ...]


@dataclass(frozen=True, slots=True)
class SessionStep:
    """One step of a draping session, and what to watch at it."""

    part: str
    does: str
    watch: str


@dataclass(frozen=True, slots=True)
class Measured:
    """A panel as measured on the form, cm.

    Attributes:
        panel: the panel.
        length, width: its longest and its widest.
        train: what is added to its length for a train.
    """

    panel: ToDrape
    length: float
    width: float
    train: float = 0.0


@dataclass(frozen=True, slots=True)
class Guide:
    """A line to draw on a block: `along` the warp or `across` it, `at` so many cm from the left or from the top."""

    what: str
    along: bool
    at: float


@dataclass(frozen=True, slots=True)
class Block:
    """A block of muslin, cm: `warp` along the length of the cloth, `weft` across it."""

    panel: ToDrape
    warp: float
    weft: float
    allowance: float
    guides: tuple[Guide, ...]


@dataclass(frozen=True, slots=True)
class Strip:
    """A strip torn across the whole muslin, cm: as long as its longest block, with the blocks side by side."""

    length: float
    blocks: tuple[Block, ...]
    left: float


@dataclass(frozen=True, slots=True)
class TearList:
    """All blocks in the order in which they are torn.

    Attributes:
        muslin: how wide the muslin is, cm; `usable` is what is left without its selvedges.
        strips: the first is torn first.
        length: of muslin in all, cm; `bought` as it is sold.
    """

    muslin: float
    usable: float
    strips: tuple[Strip, ...]
    length: float
    bought: float

    @property
    def blocks(self) -> tuple[Block, ...]:
        """All blocks."""
        return tuple(block for strip in self.strips for block in strip.blocks)


@cache
def _data() -> dict[str, Any]:
    return tomllib.loads(Path(__file__).with_name("drapes.toml").read_text(encoding="utf-8"))


@cache
def kinds() -> dict[str, PanelKind]:
    """Return the kinds of blocks by key."""
    return {key: PanelKind(key, allowance) for key, allowance in _data()["allowances"].items()}


@cache
def drapes() -> dict[str, Drape]:
    """Return the garments as they are draped, by key."""
    return {
        entry["key"]: Drape(
            entry["key"], entry["title"], tuple(entry["tape"]), tuple(ToDrape(**panel) for panel in entry["panels"])
        )
        for entry in _data()["drape"]
    }


@cache
def session() -> tuple[SessionStep, ...]:
    """Return the steps of a draping session, in their order."""
    return tuple(SessionStep(**entry) for entry in _data()["step"])


def block_of(measured: Measured) -> Block:
    """Return the block of muslin for a panel.

    Raises:
        UnknownName: there is no such kind of block.
        ValueOutOfRange: it measures nothing, or more than anything on a form.
    """
    panel = measured.panel
    kind = kinds().get(panel.kind)
    if kind is None:
        raise UnknownName(
            f"{panel.title}: there is no block of the kind “{panel.kind}”.",
            fix=f"Available: {', '.join(kinds())}.",
            where=(panel.key,),
        )
    for word, value in (("length", measured.length), ("width", measured.width)):
        if not SHORTEST <= value <= LONGEST:
            raise ValueOutOfRange(
                f"{panel.title}: a {word} of {cm(value)} is none that a panel has.",
                fix=f"Measure it on the form: from {cm(SHORTEST)} to {cm(LONGEST)}.",
                where=(panel.key,),
            )
    if not 0 <= measured.train <= LONGEST:
        raise ValueOutOfRange(
            f"{panel.title}: a train adds from nothing to {cm(LONGEST)}, not {cm(measured.train)}.",
            fix="Measure it on the floor, from the hem.",
            where=(panel.key,),
        )
    warp, weft = measured.length + measured.train + kind.allowance, measured.width + kind.allowance
    return Block(panel, warp, weft, kind.allowance, tuple(_guides(panel, weft)))


def _guides(panel: ToDrape, weft: float) -> list[Guide]:
    at = _data()["guides"]
    upright = Guide("centre line", True, at["centre_from_edge"]) if panel.hangs == "centre" else Guide(
        "balance line", True, weft / 2
    )  # fmt: skip
    return [upright, *([Guide("bust level", False, at["bust_from_top"])] if panel.bust else [])]


def tear_list(panels: Sequence[Measured], *, muslin: float) -> TearList:
    """Return the blocks for panels and the order in which they are torn from muslin of a width (cm).

    Raises:
        UnknownName: a kind of block does not exist.
        ValueOutOfRange: a panel or the muslin has no width that there is, or a block does not fit across the muslin.
    """
    if not NARROWEST_MUSLIN <= muslin <= WIDEST_MUSLIN:
        raise ValueOutOfRange(
            f"Muslin of {cm(muslin)} is none that is sold.",
            fix=f"Measure it from selvedge to selvedge: from {cm(NARROWEST_MUSLIN)} to {cm(WIDEST_MUSLIN)}.",
            where=("muslin",),
        )
    if not panels:
        raise ValueOutOfRange("There is no panel to tear.", fix="Measure at least one panel.", where=("panels",))
    usable = muslin - 2 * SELVEDGE
    blocks = [block_of(one) for one in panels]
    for block in blocks:
        if block.weft > usable:
            raise ValueOutOfRange(
                f"{block.panel.title}: a block of {cm(block.weft)} does not fit across muslin of {cm(muslin)}, "
                f"of which {cm(usable)} is left without its selvedges.",
                fix=f"Take muslin at least {cm(block.weft + 2 * SELVEDGE)} wide, or part the panel.",
                where=(block.panel.key,),
            )
    strips = _strips(blocks, usable)
    length = sum(strip.length for strip in strips)
    return TearList(muslin, usable, strips, length, ceil(length / SOLD_BY - 1e-9) * SOLD_BY)


def _strips(blocks: Sequence[Block], usable: float) -> tuple[Strip, ...]:
    """Return blocks in strips: the longest first, each beside the strip where it leaves the least muslin over."""
    strips: list[list[Block]] = []
    for block in sorted(blocks, key=lambda block: -block.warp):
        fits = [strip for strip in strips if usable - sum(b.weft for b in strip) >= block.weft - 1e-9]
        if fits:
            min(fits, key=lambda strip: usable - sum(b.weft for b in strip)).append(block)
        else:
            strips.append([block])
    return tuple(Strip(strip[0].warp, tuple(strip), usable - sum(block.weft for block in strip)) for strip in strips)
