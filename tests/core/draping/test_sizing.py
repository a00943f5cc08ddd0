"""A diagram enlarged by a known length, and pieces of one body graded to another: measured on what comes of it."""

import pytest
from pydantic import ValidationError

from izett.draping.form import Hand, draped
from izett.draping.given import drawn
from izett.draping.panel import Bodies, Graded, Known, SeamEnd
from izett.draping.wrap import level_sums
from izett.geometry.outline import signed_area
from izett.pattern.document import Intent, Pattern
from izett.pattern.sewn import seam_lengths
from tests.bodies import with_hips
from tests.draped import truth_of

GIRTHS = {"bust": "bust_girth", "waist": "waist_girth", "hip": "hip_girth"}


def smaller(given, by):
    """The same shapes as a small diagram has them."""

    def times(value):
        return round(value / by, 6)

    def panel(one):
        marks = [m.model_copy(update={"across": times(m.across), "along": times(m.along)}) for m in one.marks]
        levels = {name: times(along) for name, along in one.levels.items()}
        return one.model_copy(update={"marks": tuple(marks), "levels": levels})

    levels = {name: times(along) for name, along in given.levels.items()}
    return given.model_copy(update={"panels": tuple(map(panel, given.panels)), "levels": levels})


def around(found, body):
    return {one.level: one.around for one in level_sums(found.pieces, found.sewn, found.measured_along, body)}


@pytest.mark.parametrize("by", [5.0, 10.0])
@pytest.mark.parametrize("kind", ["bustier", "sheath"])
def test_a_diagram_is_as_large_as_its_known_length_says(kind, by, middling):
    full = draped(truth_of(kind, middling), Hand(scatter=0.0))
    real = drawn(full)
    piece = real.pieces[0]
    line = next(edge.lineage.split(".", 1)[1] for edge in piece.edges if edge.role.value == "centre_front")
    length = sum(edge.curve.length for edge in piece.edges if edge.lineage.endswith(f".{line}"))
    known = Known(of=SeamEnd(panel=piece.name, line=line), length=length)
    found = drawn(smaller(full, by).model_copy(update={"enlarged": known}))
    assert [query.words for query in found.queries] == [query.words for query in real.queries]
    for one, other in zip(found.pieces, real.pieces, strict=True):
        assert signed_area(one.outline()) == pytest.approx(signed_area(other.outline()), rel=2e-3)
        assert sum(e.curve.length for e in one.edges) == pytest.approx(
            sum(e.curve.length for e in other.edges), rel=2e-3
        )
    assert around(found, middling) == pytest.approx(around(real, middling), rel=2e-3)
    for seam in found.sewn:
        first, second = seam_lengths(Pattern(found.pieces, (), Intent()), seam)
        assert second - first == pytest.approx(seam.ease[0], abs=1e-6)


def test_a_known_length_that_is_marked_no_more_is_told_and_changes_nothing(middling):
    full = draped(truth_of("bustier", middling), Hand())
    lost = Known(of=SeamEnd(panel=full.panels[1].name, line="spine"), length=40.0)
    found = drawn(full.model_copy(update={"enlarged": lost}))
    (told,) = [query for query in found.queries if query.code == "no-known-length"]
    assert told.panel == full.panels[1].name and "spine" in told.words and not told.stops
    assert [p.outline() for p in found.pieces] == [p.outline() for p in drawn(full).pieces]


def test_graded_pieces_grow_by_the_girths_and_lengths_of_both_bodies(middling):
    acted = 0
    for kind in ("bustier", "sheath"):
        full = draped(truth_of(kind, middling), Hand(scatter=0.0))
        before = drawn(full)
        for body in with_hips(170):
            widths = {
                level: Bodies(of=middling[girth], to=body[girth])
                for level, girth in GIRTHS.items()
                if level in full.levels and 2 / 3 < body[girth] / middling[girth] < 1.5
            }
            graded = Graded(widths=widths, above=Bodies(of=40, to=42), below=Bodies(of=20, to=19))
            found = drawn(full.model_copy(update={"graded": graded}))
            if len(found.pieces) < len(before.pieces):
                assert any(query.stops for query in found.queries)
                continue
            was, now = around(before, middling), around(found, middling)
            for level, bodies in widths.items():
                if level in was and level in now:
                    # A level that bends over a side dart takes a little of the lengths' ratio.
                    assert now[level] / was[level] == pytest.approx(bodies.ratio, rel=0.02), (kind, level)
                    acted += 1
            assert all(piece.title.endswith(" (graded)") for piece in found.pieces)
            # Partners agree wherever the shape was still near enough to be trued; what is not is told as apart.
            for one in found.seams:
                first, second = seam_lengths(Pattern(found.pieces, (), Intent()), one.seam)
                assert not one.trued or second - first == pytest.approx(one.seam.ease[0], abs=1e-6)
            high = found.given.levels
            if "bust" in high and "waist" in high:
                assert high["bust"] - high["waist"] == pytest.approx(
                    (full.levels["bust"] - full.levels["waist"]) * 42 / 40, abs=1e-6
                )
            most = max((abs(bodies.to - bodies.of) for bodies in widths.values()), default=0.0)
            assert any(query.code == "graded-far" for query in found.queries) == (most > 10)
    assert acted >= 12


def test_graded_to_the_same_body_they_are_the_same_pieces(middling):
    full = draped(truth_of("bustier", middling), Hand())
    same = Graded(widths={"bust": Bodies(of=92, to=92), "waist": Bodies(of=74, to=74)}, above=Bodies(of=40, to=40))
    for one, other in zip(drawn(full).pieces, drawn(full.model_copy(update={"graded": same})).pieces, strict=True):
        for a, b in zip(one.edges, other.edges, strict=True):
            assert [c for p in a.curve.points for c in p] == pytest.approx(
                [c for p in b.curve.points for c in p], abs=1e-9
            )


def test_bodies_that_nobody_grades_between_are_refused():
    with pytest.raises(ValidationError, match="more than any grading"):
        Bodies(of=60, to=95)
