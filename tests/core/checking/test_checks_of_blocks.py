"""The checks on other blocks than the bodice: what they must not mistake, and what they still find."""

from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.drafting.ease import KNIT
from izett.drafting.sets import starter_sets
from izett.geometry.curve import straight
from izett.pattern.facts import Role
from tests.core.blocks import drafted, with_pieces

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}


def found(key, pattern, values):
    return [r.finding for r in run(catalogue().checks[key], Garment(pattern, values))]


def changed(pattern, name, change):
    piece = pattern.piece(name)
    return with_pieces(pattern, replace(piece, edges=tuple(change(edge) for edge in piece.edges)))


def test_a_fold_in_two_parts_is_one_line_until_it_bends():
    draft = drafted(["torso"], BODY)
    assert all(f.verdict is Verdict.PASSES for f in found("outline_sound", draft.pattern, draft.values))

    def bend(edge):
        (x, y), end = edge.curve.start, edge.curve.end
        if edge.end == "front.waist_cf":
            return replace(edge, curve=straight((x, y), (end[0] + 0.4, end[1])))
        if edge.start == "front.waist_cf":
            return replace(edge, curve=straight((x + 0.4, y), end))
        return edge

    bent = changed(draft.pattern, "torso_front", bend)
    # The fold no longer runs straight, and the levels that ended on it are left beside it.
    told = {f.aspect for f in found("outline_sound", bent, draft.values) if f.verdict is Verdict.FAILS}
    assert told == {"fold", "level"}


def test_a_half_on_the_fold_that_is_cut_twice_counts_for_front_and_back():
    draft = drafted(["knit_skirt"], BODY, fit="close", cloth=KNIT)
    assert {f.where[0] for f in found("ease_as_meant", draft.pattern, draft.values)} == {"hip", "waist"}
    assert all(f.verdict is Verdict.PASSES for f in found("ease_as_meant", draft.pattern, draft.values))
    wider = {**draft.values, "hip_girth": 90.0}
    hip = next(f for f in found("ease_as_meant", draft.pattern, wider) if f.where == ("hip",))
    assert hip.verdict is Verdict.WARNS and hip.amount == pytest.approx(8)


def test_the_crotch_runs_on_out_of_the_centre_and_the_waist_is_still_square_to_it():
    draft = drafted(["trousers"], BODY)
    where = {f.where for f in found("square_at_centre", draft.pattern, draft.values)}
    assert where == {(f"trouser_{half}.waist", f"trouser_{half}.centre") for half in ("front", "back")}

    def lean(edge):
        if edge.role is not Role.CENTRE_FRONT:
            return edge
        start, end = edge.curve.points
        return replace(edge, curve=straight((start[0] + 1.5, start[1]), end))

    leaning = changed(draft.pattern, "trouser_front", lean)
    assert any(f.verdict is Verdict.FAILS for f in found("square_at_centre", leaning, draft.values))


def test_rectangles_meet_at_right_angles_and_are_not_asked_to_run_on():
    draft = drafted(["straight_shirt"], BODY)
    assert found("runs_across", draft.pattern, draft.values) == []
    assert all(f.verdict is Verdict.PASSES for f in found("seams_match", draft.pattern, draft.values))


def test_an_inseam_that_no_longer_runs_on_is_found():
    draft = drafted(["trousers"], BODY)
    seams = {f.where[0] for f in found("runs_across", draft.pattern, draft.values)}
    assert {"inseam", "trouser_side"} <= seams

    def steeper(edge):
        if edge.role is not Role.CROTCH:
            return edge
        *points, handle, fork = edge.curve.points
        return replace(edge, curve=replace(edge.curve, points=(*points, (handle[0], handle[1] + 2), fork)))

    off = [
        f
        for f in found("runs_across", changed(draft.pattern, "trouser_front", steeper), draft.values)
        if f.verdict is Verdict.FAILS
    ]
    assert {f.where[0] for f in off} == {"inseam"}


def test_a_sleeve_without_its_ease_is_found():
    draft = drafted(["bodice", "sleeve"], BODY)

    def lower(edge):
        if edge.role is not Role.CAP:
            return edge
        return replace(edge, curve=edge.curve.mapped(lambda p: (p[0], p[1] * 0.93)))

    flat = changed(draft.pattern, "sleeve", lower)
    off = [f.where[0] for f in found("seams_match", flat, draft.values) if f.verdict is Verdict.FAILS]
    assert off == ["cap"]


def test_every_role_of_an_edge_is_drafted_by_some_set():
    sets = starter_sets().values()
    drafts = [drafted(of.blocks, BODY, fit=of.fit, cloth=of.cloth).pattern for of in sets]
    roles = {edge.role for pattern in drafts for piece in pattern for edge in piece.edges}
    # A panel is what a style line makes.
    assert roles == set(Role) - {Role.PANEL}
