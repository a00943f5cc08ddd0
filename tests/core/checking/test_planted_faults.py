"""Each fault that a slip of the hand can make is told by the check that should, and a good garment tells nothing.

Sixty bodies, of measured women, of a size series and of extremes, on the blocks and on garments built from them.
"""

from collections import Counter
from functools import cache

import pytest

from izett.catalogue import catalogue
from izett.drafting.ease import Cloth, Kind
from izett.drafting.sets import starter_sets
from izett.errors import IzettError
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from tests.bodies import with_hips
from tests.garments import BACK_OPENING, DRESS, DRESS_BLOCKS, GARMENTS, WHOLE_GARMENTS, garment, whole_garment
from tests.planted import PLANTS, told

BODIES = 60
#: Of a hundred planted faults so many are told at least.
TOLD = 0.99
#: Of a hundred good garments at most so many tell something: a few of the extreme bodies have shapes that are odd.
FALSELY = 0.025
#: In so many cases at least a fault could be planted; one garment of all has a lining.
LEAST = 40
LEAST_LINED = 12
#: What an unfinished block asks and a figure tells: it has no opening, a narrow skirt no slit, a full arm lifts the hem.
OPEN_QUESTIONS = {("passes_over", ""), ("passes_over", "short"), ("stride", ""), ("lift", "")}
ZIP = {"start": "skirt_back.waist_cb", "end": "skirt_back.hem_cb", "along": "skirt_back.centre"}


def _set(key):
    def of(body):
        blocks = starter_sets()[key]
        cloth = Cloth(Kind(blocks.cloth.kind), blocks.cloth.stretch)
        return Recipe(blocks.blocks[0], body, also=tuple(blocks.blocks[1:]), fit=blocks.fit, cloth=cloth)

    return of


def _dress(body):
    """The whole dress, its zip run on through the waist: without that it does not pass."""
    through = {**BACK_OPENING, "on": [ZIP], "long": 58.0}
    steps = tuple(
        Step(f"s{i}", kind, through if kind == "open_up" else params) for i, (kind, params) in enumerate(DRESS)
    )
    return Recipe(DRESS_BLOCKS[0], body, also=DRESS_BLOCKS[1:], steps=steps)


def _lined_skirt(body):
    lining = Step("s0", "add_copy", {"kind": "lining", "pieces": ["skirt_front", "skirt_back"]})
    return Recipe("skirt", body, steps=(lining, Step("s1", "open_up", {"closure": "zip", "at": ZIP, "long": 20.0})))


MAKERS = {
    **{name: (lambda body, name=name: garment(name, body)) for name in GARMENTS},
    **{key: _set(key) for key in starter_sets()},
    **{name: (lambda body, name=name: whole_garment(name, body)) for name in WHOLE_GARMENTS},
    "dress, whole": _dress,
    "lined skirt": _lined_skirt,
}


@cache
def _planted():
    """Return what was planted and told by kind, the good garments that told something, and how many there were."""
    evaluator, checks = Evaluator(catalogue()), catalogue().checks
    bodies = with_hips()
    planted, found, false, good = Counter(), Counter(), Counter(), 0
    for number, body in enumerate(bodies[:: len(bodies) // BODIES][:BODIES]):
        for place, make in enumerate(MAKERS.values()):
            # Each garment on every fourth body: all bodies and all garments come, not all of both.
            if (number + place) % 4:
                continue
            try:
                evaluation = evaluator.evaluate(make({**body, "underbust_girth": body["bust_girth"] - 12}))
            except IzettError:
                continue
            if any(stage.failure for stage in evaluation.stages):
                continue
            good += 1
            before = told(checks, evaluation.pattern, evaluation.body)
            odd = {(check, aspect) for check, aspect, _ in before} - OPEN_QUESTIONS
            false.update([tuple(sorted(odd))] if odd else [])
            for kind, plant in PLANTS.items():
                faulty = plant.plant(evaluation.pattern, evaluation.body)
                asked_before = {check for check, *_ in before}
                # Where the check tells of the figure anyhow, a fault cannot be told from it.
                if faulty is not None and not asked_before & plant.told_by:
                    planted[kind] += 1
                    asked = {key: checks[key] for key in plant.told_by}
                    found[kind] += bool(told(asked, faulty, evaluation.body) - before)
    return planted, found, false, good


@pytest.mark.parametrize("kind", PLANTS)
def test_a_planted_fault_is_told_by_the_check_that_should(kind):
    planted, found, *_ = _planted()
    assert planted[kind] >= (LEAST_LINED if kind == "lining shorter" else LEAST)
    assert found[kind] >= TOLD * planted[kind], f"told {found[kind]} of {planted[kind]}"


def test_good_garments_tell_nothing_false():
    *_, false, good = _planted()
    assert good >= 200
    assert sum(false.values()) <= FALSELY * good, dict(false)
