"""The second engine: a packer of irregular shapes on open strips, in a process of its own.

It knows nothing of folds: pieces on the fold go in as one chain along it, held there by a thin mast as long as the strip
is wide. It counts its budget in looks (reports on tries that are not easy), not in seconds, so that the same seed gives the same plans
on any machine; a bound in seconds only keeps it from running on. An item that is as tall as the strip brings it down in a
way that no exception tells: hence a process, which is ended where it has done its looks or is not wanted any more.
"""

import json
import os
import subprocess
import sys
from collections.abc import Generator, Sequence
from dataclasses import dataclass
from random import Random
from threading import Thread
from time import sleep
from typing import Any

#: Seconds between two looks at what it reports.
LOOK_EVERY = 0.02
#: Seconds after which it stops, whatever it has looked at: many times what it needs, even on a busy machine.
LONGEST = 300
#: Depth of its quadtree. A shallow one is quickest for as few pieces as a garment has.
DEPTH = 2
#: A try that fits after so many reports was an easy one: only what comes after them is counted as a look.
EASY = 4
#: What is shorter by less than this share is not said until the end.
STEP = 0.995
#: cm. How thick the mast is, and how much shorter than the strip is wide.
THIN = 0.001


@dataclass(frozen=True, slots=True)
class Item:
    """A shape to pack: its corners (length axis first), and the angles (degrees) at which it may lie."""

    key: str
    corners: list[tuple[float, float]]
    turns: list[float]


@dataclass(frozen=True, slots=True)
class Packed:
    """Where an item came to lie: turned about its origin, then moved."""

    key: str
    turn: float
    along: float
    across: float


@dataclass(frozen=True, slots=True)
class Found:
    """A packing: how much of the strip it takes (cm), and where its items lie."""

    length: float
    packed: list[Packed]


def begun(
    width: float, items: Sequence[Item], *, below: float, seed: int, looks: int, seconds: int = LONGEST
) -> "subprocess.Popen[str]":
    """Return the process that packs a strip: it says what is shorter than `below`, until its looks are used up."""
    asked = {
        "width": width,
        "below": below,
        "items": [(item.key, item.corners, item.turns) for item in items],
        "seed": Random(seed).getrandbits(32),
        "looks": looks,
        "seconds": seconds,
    }
    process = subprocess.Popen(
        # As a file: it needs nothing of the rest.
        [sys.executable, __file__],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
    )
    assert process.stdin is not None
    process.stdin.write(f"{json.dumps(asked)}\n")
    process.stdin.flush()
    return process


def packings(process: "subprocess.Popen[str]") -> Generator[Found]:
    """Yield the packings that a process finds, each shorter by a step, and the shortest at the end; closing it ends it."""
    assert process.stdin is not None and process.stdout is not None
    try:
        for line in process.stdout:
            told = json.loads(line)
            yield Found(told["length"], [Packed(*one) for one in told["packed"]])
    finally:
        process.kill()
        process.stdin.close()
        process.stdout.close()
        process.wait()


def _outlive_nobody() -> None:
    """End with whoever asked: its end of the input closes when it goes, whatever it dies of."""
    sys.stdin.read()
    os._exit(0)


def _work(asked: dict[str, Any]) -> None:
    """Pack, and say each better packing in one line."""
    import spyrrow  # noqa: PLC0415  (only this process needs it)

    items = [spyrrow.Item(key, [(u, v) for u, v in corners], 1, turns) for key, corners, turns in asked["items"]]
    strip = spyrrow.StripPackingInstance("", asked["width"], items)
    config = spyrrow.StripPackingConfig(
        early_termination=True,
        quadtree_depth=DEPTH,
        total_computation_time=None,
        exploration_time=asked["seconds"],
        compression_time=1,
        num_workers=1,
        seed=asked["seed"],
    )
    reports = spyrrow.ProgressQueue()
    solving = Thread(target=strip.solve, args=(config, reports), daemon=True)
    solving.start()
    hard, since, shortest, said = 0, 0, float("inf"), asked["below"] / STEP
    best: Any = None
    while hard < asked["looks"]:
        # Asked before the queue is emptied: what is reported last is read too.
        going = solving.is_alive()
        for kind, found in reports.drain():
            if kind != spyrrow.ReportType.ExplFeas:
                since += 1
                hard += since > EASY
            elif found.width < shortest and hard < asked["looks"]:
                since, shortest, best = 0, found.width, found
                if shortest < said * STEP:
                    said, best = shortest, None
                    _say(found)
        if not going:
            break
        sleep(LOOK_EVERY)
    if best is not None and shortest < asked["below"]:
        _say(best)
    # The solver cannot be told to stop.
    os._exit(0)


def _say(found: Any) -> None:
    packed = [(p.id, p.rotation, *p.translation) for p in found.placed_items]
    print(json.dumps({"length": found.width, "packed": packed}), flush=True)


if __name__ == "__main__":
    question = json.loads(sys.stdin.readline())
    Thread(target=_outlive_nobody, daemon=True).start()
    _work(question)
