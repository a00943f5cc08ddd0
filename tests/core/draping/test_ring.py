"""Walking round a panel: which lines its marks make, and what does not hold together."""

import pytest

from izett.draping.panel import Mark, MarkKind, Panel
from izett.draping.ring import Wrong, walked
from izett.pattern.facts import Role


def mark(kind, across, along, line="", name=""):
    return Mark(
        kind=MarkKind(kind), across=across, along=along, lines=tuple(line.split("+")) if line else (), name=name
    )


def panel(*marks, name="front"):
    return Panel(name=name, marks=marks)


#: A plain bustier panel: centre front, waist, princess, upper edge.
FOUR = (
    mark("dash", 0, 4, "upper+centre_front"),
    mark("dash", 0, -18, "centre_front+waist"),
    mark("cross", 9, -18.5, "waist+princess"),
    mark("dot", 9.5, -9, "princess"),
    mark("dot", 10, 0, "princess"),
    mark("cross", 12, 6, "princess+upper"),
)


def names(round_):
    return [line.name for line in round_.lines]


def test_lines_are_named_by_what_their_corners_have_in_common():
    found = walked(panel(*FOUR))
    assert names(found) == ["centre_front", "waist", "princess", "upper"]
    assert [len(line.dots) for line in found.lines] == [0, 0, 2, 0]
    assert not found.queries


def test_walked_the_other_way_round_it_is_the_same_panel():
    there, back = walked(panel(*FOUR)), walked(panel(*reversed(FOUR)))
    assert sorted(names(there)) == sorted(names(back))
    spots = {line.name: {there.spot(line.start), there.spot(line.end)} for line in there.lines}
    assert spots == {line.name: {back.spot(line.start), back.spot(line.end)} for line in back.lines}


def test_the_walk_may_begin_in_the_middle_of_a_line():
    turned = (*FOUR[4:], *FOUR[:4])
    assert sorted(names(walked(panel(*turned)))) == sorted(names(walked(panel(*FOUR))))


def test_a_cross_that_names_one_line_leaves_the_other_to_its_neighbours():
    found = walked(
        panel(
            mark("dash", 0, 4, "centre_front"),
            mark("dash", 0, -18, "centre_front+waist"),
            mark("cross", 9, -18, "waist+princess"),
            mark("cross", 12, 6, "princess+upper"),
        )
    )
    assert set(names(found)) == {"centre_front", "waist", "princess", "upper"}


def test_two_lines_of_one_name_are_told_apart_and_a_line_that_a_dart_parts_stays_one():
    side_panel = walked(
        panel(
            mark("cross", -5, 6, "upper+princess"),
            mark("cross", -5, -18, "princess+waist"),
            mark("cross", 5, -18, "waist+princess"),
            mark("cross", 5, 6, "princess+upper"),
        )
    )
    assert sorted(names(side_panel)) == ["princess", "princess_2", "upper", "waist"]
    darted = walked(
        panel(
            mark("dash", 0, 20, "neck+centre_front"),
            mark("dash", 0, -18, "centre_front+waist"),
            mark("cross", 22, -18, "waist+side"),
            mark("cross", 24, -3, "side+bust_dart"),
            mark("cross", 12, 0, "bust_dart"),
            mark("cross", 24.2, 0, "bust_dart+side"),
            mark("cross", 24.5, 6, "side+armhole"),
            mark("cross", 18, 20, "armhole+neck"),
        )
    )
    assert names(darted).count("side") == 2
    assert names(darted).count("bust_dart") == 2
    assert not darted.queries


def test_four_marks_of_a_dart_alone_are_a_dart_within_the_panel():
    waist_dart = tuple(mark("cross", x, y, "waist_dart") for x, y in ((10, 8), (9, 0), (11, 0), (10, -12)))
    found = walked(panel(*FOUR, *waist_dart, mark("cross", 9, 1, name="apex"), mark("slash", 3, -17)))
    assert found.diamonds == (("waist_dart", (6, 7, 8, 9)),)
    assert found.inside == (10, 11)
    assert names(found) == ["centre_front", "waist", "princess", "upper"]


@pytest.mark.parametrize(
    ("marks", "code", "stops", "words"),
    [
        ((), Wrong.OPEN, True, "0 corners so far"),
        (FOUR[:2], Wrong.OPEN, True, "2 corners so far"),
        ((mark("dot", 1, 1, "hem"), mark("dot", 2, 2, "hem")), Wrong.OPEN, True, "0 corners"),
        ((*FOUR[:2], mark("cross", 0.1, -18, "waist+hem"), *FOUR[2:]), Wrong.TWICE, True, "Marks 2 and 3"),
        (
            (mark("cross", 0, 0), mark("cross", 10, 0), mark("cross", 5, 8)),
            Wrong.UNNAMED,
            False,
            "from mark 1 to mark 2",
        ),
        (
            (*FOUR[:2], mark("cross", 5, -18, "waist+waist_dart"), mark("cross", 5, -8, "waist_dart+hem"), *FOUR[2:]),
            Wrong.DART_OPEN,
            True,
            "has 1 leg",
        ),
        ((*FOUR, mark("cross", 4, 0, "waist_dart")), Wrong.DART_OPEN, False, "has 1 marks"),
    ],
)
def test_what_does_not_hold_together_is_told_with_what_to_do(marks, code, stops, words):
    queries = [query for query in walked(panel(*marks)).queries if query.code is code]
    assert queries, walked(panel(*marks)).queries
    assert queries[0].stops is stops
    assert any(words in query.words for query in queries)
    assert all(query.fix for query in queries)


def test_names_in_use_tell_the_role():
    from izett.draping.ring import role_of

    told = {
        "upper_edge": Role.NECK,
        "princess_2": Role.PANEL,
        "CF": Role.CENTRE_FRONT,
        "side seam": Role.SIDE,
        "moon": None,
    }
    assert {name: role_of(name) for name in told} == told
