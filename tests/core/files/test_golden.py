"""Files that an earlier version wrote are read for ever, and give the geometry that they were written with."""

import json
from collections import Counter
from pathlib import Path

import pytest
import shapely

from izett.files.pattern_json import read_pattern
from izett.files.recipe_json import RecipeDoc
from izett.pattern.document import Pattern
from izett.pattern.facts import Corner, Layer, Region, SeamKind, Zone
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import width

GOLDEN = Path(__file__).parents[2] / "golden"
#: cm. What two readings of one geometry may differ by.
SAME = 1e-9
#: cm. By so much the second version of the hem step draws it elsewhere between its corners.
OF_A_HEM = 0.4


@pytest.fixture(scope="module")
def written() -> tuple[Pattern, dict[str, float]]:
    pattern, doc = read_pattern((GOLDEN / "pattern_dress.json").read_text())
    return pattern, dict(doc.measures)


@pytest.fixture(scope="module")
def worked_again(evaluator, written):
    recipe = RecipeDoc.model_validate(json.loads((GOLDEN / "recipe_dress.json").read_text())).recipe(written[1])
    evaluation = evaluator.evaluate(recipe)
    assert [stage.failure for stage in evaluation.stages] == [None] * 15
    return evaluation.pattern


def rings(pattern: Pattern) -> list[shapely.LinearRing]:
    return sorted((shapely.LinearRing(piece.outline()) for piece in pattern), key=lambda ring: ring.bounds)


def test_a_recipe_of_then_gives_the_pattern_of_then(written, worked_again):
    """But for the hem, which a later version blends along its length and not across: the two skirt pieces follow it."""
    then, now = rings(written[0]), rings(worked_again)
    off = [shapely.hausdorff_distance(old, new) for old, new in zip(then, now, strict=True)]
    assert sum(apart > SAME for apart in off) == 2
    assert max(off) < OF_A_HEM


def test_a_pattern_of_then_is_sewn_and_worn_as_the_one_of_now(written, worked_again):
    then, now = written[0], worked_again
    lengths = [sorted(seam_lengths(p, seam) for seam in p.seams) for p in (then, now)]
    assert len(lengths[0]) == len(lengths[1]) == 10
    for old, new in zip(*lengths, strict=True):
        assert old == pytest.approx(new, abs=SAME)
    for level in ("waist", "hip"):
        assert width(then, level) == pytest.approx(width(now, level), abs=SAME)
        assert width(then, level) > 60
    # Then the reach wedge of 1 cm left the bust line behind; now that ends on the outline, two edges wider on each side.
    assert 0 < width(now, "bust") - width(then, "bust") < 2


def test_a_pattern_of_then_gets_the_facts_that_its_names_said(written, worked_again):
    then, now = written[0], worked_again

    #: The ends of a line that was cut along an existing corner keep that corner's name: then nothing said so.
    ends = {Corner.LINE_START, Corner.LINE_END}

    def facts(pattern: Pattern) -> Counter[tuple[Zone, Region, Layer, frozenset[Corner]]]:
        return Counter((p.zone, p.region, p.layer, frozenset(p.corners.values()) - ends) for p in pattern)

    assert facts(then) == facts(now)
    assert Counter(seam.kind for seam in then.seams) == Counter(seam.kind for seam in now.seams)
    assert Counter(seam.kind for seam in then.seams)[SeamKind.CAP] == 1
