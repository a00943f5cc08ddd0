import pytest

from izett.catalogue import catalogue
from izett.errors import StepRefused, UnknownName, ValueOutOfRange
from izett.fitting.compare import moves
from izett.fitting.finding import AmendPlan, Counted, StepPlan, Taken, finding_kind, finding_kinds, looked_for
from izett.fitting.garment import FACTS, Fitted
from izett.fitting.pointing import FINDERS, MARKED
from izett.fitting.readings import HALF, IN_FORMULAS, WHOLE
from izett.fitting.working_out import ALONG, EDGES, NOW, Adding, Amending, Seen, turned, worked
from izett.pattern.facts import Half
from izett.pattern.worn import width
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.garments import BODY, DRESS, DRESS_BLOCKS


@pytest.fixture(scope="module")
def block(evaluator):
    recipe = Recipe("bodice", BODY)
    return Fitted(recipe, evaluator.evaluate(recipe))


@pytest.fixture(scope="module")
def dress(evaluator):
    steps = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS))
    recipe = Recipe("bodice", BODY, also=DRESS_BLOCKS[1:], steps=steps)
    return Fitted(recipe, evaluator.evaluate(recipe))


def deed(kind, remedy, fitted, given, **about):
    found = finding_kind(kind)
    return worked(Seen(found, given, **about), found.remedy(remedy), fitted).deeds[0]


def test_the_data_is_sound():
    for kind in finding_kinds().values():
        assert kind.remedies or kind.normal, kind.key
        assert kind.spot.view in ("front", "back")
        known = {i.symbol for i in kind.inputs} | {EDGES} | set(IN_FORMULAS)
        assert not {i.symbol for i in kind.inputs} & ({EDGES, NOW, ALONG} | set(IN_FORMULAS)), kind.key
        for entry in kind.inputs:
            assert entry.low <= entry.default <= entry.high, (kind.key, entry.symbol)
            assert not entry.within or entry.within in WHOLE or entry.within in HALF
        needs = [*kind.needs, *(n for r in kind.remedies for n in r.needs), *(n for i in kind.inputs for n in i.needs)]
        assert set(needs) <= set(FACTS), kind.key
        for remedy in kind.remedies:
            assert all(t.reading in WHOLE or t.reading in HALF for t in remedy.tells)
            assert remedy.sum is None or set(remedy.sum.uses) <= known
            for plan in remedy.steps:
                operation = catalogue().operations[plan.kind]
                fields = set(operation.params.model_fields)
                if plan.values == {"find": MARKED}:
                    assert kind.marks, kind.key
                    continue
                assert {name.split(".")[0] for name in plan.amounts} | set(plan.values) <= fields, (
                    kind.key,
                    remedy.key,
                )
                for formula in plan.amounts.values():
                    assert set(formula.uses) <= known | ({NOW, ALONG} if isinstance(plan, AmendPlan) else set())
                if isinstance(plan, StepPlan):
                    places = [v for v in plan.values.values() if isinstance(v, dict)]
                    assert all(place["find"] in FINDERS for place in places)
                    assert not plan.under or Section.FIT in operation.sections or operation.section is not Section.STYLE


def test_every_row_of_the_trade_is_there_and_is_found_by_its_words():
    """The tables of fitting have more than sixty rows: bodice, sleeve, skirt, bands, strapless, laced, trousers, knits."""
    kinds = finding_kinds()
    assert len(kinds) > 80
    assert {kind.group for kind in kinds.values()} == {
        "Bodice", "Sleeve", "Skirt and hem", "Bands and finish", "Strapless and laced", "Trousers", "Knits", "Draping",
    }  # fmt: skip
    assert "erect_back" in [kind.key for kind in looked_for("nape fold")]
    assert [kind.key for kind in looked_for("smiles seat")] == ["crotch_cuts"]
    assert list(looked_for("moon phase")) == []


def test_a_folded_pinch_is_half_of_the_cloth(block):
    given = {"bust": 1.0, "waist": 2.0}
    whole = deed("sides_loose", "take_in", block, given)
    pinch = deed("sides_loose", "take_in", block, given, taken=Taken.PINCH)
    assert (whole.params["underarm"], whole.params["waist"]) == (-0.25, -0.5)
    assert (pinch.params["underarm"], pinch.params["waist"]) == (-0.5, -1.0)


def test_what_was_counted_on_each_side_is_turned_openly_into_all_around(block):
    kind = finding_kind("sides_loose")
    seen = Seen(kind, {"bust": 0.0, "waist": 1.0}, Taken.PINCH, Counted.EACH_SIDE)
    waist = turned(seen, block)["waist"]
    assert (waist.given, [by for _, by in waist.ways], waist.whole) == (1.0, [2.0, 2.0], 4.0)
    plan = worked(seen, kind.remedy("take_in"), block)
    assert plan.deeds[0].params["waist"] == -1.0
    one = turned(Seen(kind, {"waist": 1.0}, Taken.PINCH, Counted.EACH_SIDE, Half.LEFT), block)["waist"]
    assert one.whole == 2.0, "what is pinned on one side is all on that side"


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT, Half.RIGHT])
@pytest.mark.parametrize(("key", "remedy", "sign"), [("sides_tight", "let_out", 1), ("sides_loose", "take_in", -1)])
def test_all_that_was_pinned_around_is_gained_whichever_side_it_is_on(evaluator, middling, key, remedy, sign, half):
    """Measured from outside, around the body: what was pinned on one side is taken there, on two edges in place of four."""
    recipe = Recipe("bodice", middling)
    fitted = Fitted(recipe, evaluator.evaluate(recipe))

    def gained(half):
        one = deed(key, remedy, fitted, {"bust": 1.6, "waist": 1.0}, half=half)
        step = Step("f", one.kind, one.params, section=one.section, half=one.half)
        after = evaluator.evaluate(Recipe("bodice", middling, steps=(step,))).pattern
        return {level: width(after, level) - width(fitted.evaluation.pattern, level) for level in ("bust", "waist")}

    assert gained(half)["waist"] == pytest.approx(sign * 1.0, abs=0.03)
    # Given at the underarm, it runs out towards the waist: at the bust a little less, on one side as on both.
    assert 1.5 < sign * gained(half)["bust"] <= 1.6
    assert gained(half) == pytest.approx(gained(Half.BOTH), abs=0.001)
    assert finding_kind(key).remedy(remedy).edges_on(half) == (4 if half is Half.BOTH else 2)


def test_a_remedy_of_the_body_goes_under_the_style_and_one_of_the_style_amends_it(dress):
    under = deed("back_tight", "off_tip", dress, {"missing": 0.8})
    assert isinstance(under, Adding) and under.section is Section.FIT
    amended = deed("sleeve_not_full", "cuff", dress, {"more": 6.0})
    assert isinstance(amended, Amending) and amended.kind == "spread_piece"
    assert (amended.before["amount"], amended.after["amount"]) == (12.0, 18.0)
    neck = deed("neckline_place", "amend", dress, {"front": -1.0})
    assert isinstance(neck, Amending) and (neck.before["front"], neck.after["front"]) == (4.0, 3.0)


@pytest.mark.parametrize(
    ("kind", "remedy", "half", "told"),
    [
        ("back_rise_short", "wedge", Half.BOTH, "does not have trousers"),
        ("sleeve_not_full", "spread", Half.BOTH, "slashed and spread"),
        ("one_shoulder_low", "lower", Half.BOTH, "about one half"),
        ("round_back", "tip", Half.LEFT, "lies at the centre"),
        ("sides_tight", "ease", Half.LEFT, "cannot be made on one alone"),
    ],
)
def test_what_does_not_apply_is_refused_in_words(block, kind, remedy, half, told):
    found = finding_kind(kind)
    with pytest.raises(StepRefused, match=told) as refused:
        worked(Seen(found, half=half), found.remedy(remedy), block)
    assert refused.value.fix


def test_amounts_out_of_range_and_unknown_names_are_told(block):
    kind = finding_kind("waist_low")
    with pytest.raises(ValueOutOfRange, match="outside 0.2 cm to 5 cm"):
        worked(Seen(kind, {"low": 9}), kind.remedies[0], block)
    with pytest.raises(UnknownName, match="does not ask"):
        worked(Seen(kind, {"depth": 1}), kind.remedies[0], block)
    with pytest.raises(UnknownName):
        finding_kind("moon_phase")
    with pytest.raises(UnknownName, match="shorten"):
        kind.remedy("magic")
    with pytest.raises(StepRefused, match="two rounds"):
        deed("bust_tight", "full_bust", block, {"missing": 10.0}, half=Half.LEFT)


def test_a_pinch_larger_than_the_cloth_is_told(block, monkeypatch):
    kind = finding_kind("shoulder_long")
    (entry,) = kind.inputs
    monkeypatch.setattr("izett.fitting.working_out.reading", lambda *_, **__: 3.0)
    assert entry.within == "shoulder"
    with pytest.raises(ValueOutOfRange, match="more than there is"):
        turned(Seen(kind, {"long": 3.5}), block)


def test_nothing_pinned_is_nothing_to_change(block):
    kind = finding_kind("sides_tight")
    with pytest.raises(StepRefused, match="come to nothing"):
        worked(Seen(kind, {"bust": 0.0, "waist": 0.0}), kind.remedy("let_out"), block)


def test_moves_are_listed_largest_first_with_their_lengths(evaluator, middling):
    before = evaluator.evaluate(Recipe("bodice", middling)).pattern
    step = Step("s", "change_length", {"amount": 1.5})
    after = evaluator.evaluate(Recipe("bodice", middling, steps=(step,))).pattern
    found = moves(before, after)
    assert [m.distance for m in found] == sorted((m.distance for m in found), reverse=True)
    by_line = {m.lineage: m for m in found}
    assert by_line["front.waist"].distance == pytest.approx(1.5, abs=0.05)
    assert by_line["front.centre"].length_after - by_line["front.centre"].length_before == pytest.approx(1.5, abs=1e-6)
    assert "front.neck" not in by_line
    assert moves(before, before) == []


def test_a_change_survives_new_measures(evaluator, middling):
    """The same remedy on a re-drafted block: the amounts stay what the fitting said."""
    step = Step("s", "change_shoulder", {"amount": 0.8})
    for body in (middling, {**middling, "bust_girth": 100.0, "high_bust_girth": 93.0}):
        before = evaluator.evaluate(Recipe("bodice", body)).pattern
        after = evaluator.evaluate(Recipe("bodice", body, steps=(step,))).pattern
        lengths = [
            next(e.curve.length for e in p.piece("bodice_front").edges if e.lineage == "front.shoulder")
            for p in (before, after)
        ]
        assert lengths[1] - lengths[0] == pytest.approx(0.8, abs=1e-9)
