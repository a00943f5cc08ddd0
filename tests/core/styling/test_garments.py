"""Eight garments from the fitted blocks, over many bodies: every step acts or says why, what is sewn agrees."""

import pytest

from izett.checking.check import Verdict
from izett.errors import ReferenceLost, StepRefused
from izett.geometry.outline import crossing
from izett.pattern.sewn import seam_lengths
from tests.bodies import with_hips
from tests.garments import BODY, GARMENTS, garment

NAMES = list(GARMENTS)


def without_openings(results):
    return [r.words for r in results if r.finding.verdict is Verdict.FAILS]


@pytest.mark.parametrize("name", NAMES)
def test_a_garment_is_built_and_everything_agrees(name, evaluator):
    evaluation = evaluator.evaluate(garment(name))
    assert [str(stage.failure) for stage in evaluation.stages if stage.failure] == []
    assert without_openings(evaluation.results) == []
    for seam in evaluation.pattern.seams:
        first, second = seam_lengths(evaluation.pattern, seam)
        assert seam.ease[0] - 0.15 <= second - first <= seam.ease[1] + 0.15


@pytest.mark.parametrize("name", NAMES)
def test_a_garment_survives_other_bodies(name, evaluator):
    """Built for one body and worked out for others: right, or a typed refusal; what fails offers its fix."""
    whole = 0
    bodies = [{"height": 165.0, **body} for body in with_hips(75)]
    for body in bodies:
        evaluation = evaluator.evaluate(garment(name, body))
        assert all(s.failure is None or isinstance(s.failure, ReferenceLost | StepRefused) for s in evaluation.stages)
        whole += all(stage.failure is None for stage in evaluation.stages)
        for piece in evaluation.pattern:
            assert crossing(piece.outline()) is None
        for result in evaluation.results:
            if result.finding.verdict is Verdict.FAILS:
                assert result.finding.fixes, result.words
    assert whole >= len(bodies) * 0.6


def test_a_later_change_of_measures_reaches_what_follows(evaluator):
    """The cuff is worked out from the sleeve's hem as it is: another wrist, another cuff."""

    def cuff(body):
        pattern = evaluator.evaluate(garment("Bishop sleeve", body)).pattern
        seam = next(s for s in pattern.seams if s.name.endswith(".cuff"))
        return seam_lengths(pattern, seam)

    hem, band = cuff(BODY)
    assert band == pytest.approx(0.58 * hem)
    longer, wider = cuff({**BODY, "hand_girth": 24.0, "wrist_girth": 19.0})
    assert longer > hem
    assert wider == pytest.approx(0.58 * longer)
