"""A draping session on a garment that is there: each line of every garment marked anew, with a pencil's scatter.

The marks are made here from the outline, moved by a known amount; what comes back is measured from outside.
"""

import os
from collections import Counter
from random import Random

import numpy as np
import pytest
import shapely

from izett.cli import main
from izett.draping.drawing import TOLD
from izett.errors import IzettError, StepRefused
from izett.files.pattern_json import read_pattern
from izett.fitting.finding import finding_kind
from izett.fitting.garment import Fitted
from izett.fitting.marked import LaidMark, Marked, guides_of, marked_piece, parts_of
from izett.fitting.plan import plan, ways_of, with_deeds
from izett.fitting.pointing import Pointed
from izett.fitting.working_out import Seen, refuse
from izett.pattern.facts import Half, Role, SeamKind
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import is_body
from izett.recipe.model import Recipe, Step
from izett.styling.operations.redraw_edge import MarkedAs
from tests.core.fitting.test_every_remedy import garments
from tests.garments import BODY, DRESS, DRESS_BLOCKS

KIND = finding_kind("draped_anew")
#: Of the lines of each garment, one in so many is tried.
EVERY = int(os.environ.get("IZETT_LINES", "3"))
#: cm. How far the line was moved, and how the pencil scatters.
MOVED, SCATTER = 0.6, 0.15
#: cm. A hand dots a line about so closely.
APART = 4.0
ROLES = (Role.NECK, Role.ARMHOLE, Role.HEM, Role.SIDE, Role.PANEL, Role.CAP)


def truth_of(part, moved=MOVED):
    """Where the line lies after the session: bowed out between its ends."""
    points = [p for edge in part.edges for p in edge.curve.flattened()]
    line = shapely.LineString(points)
    (ax, ay), (bx, by) = part.ends
    long = np.hypot(bx - ax, by - ay)
    normal = np.array([by - ay, ax - bx]) / long
    shares = np.linspace(0, 1, 60)
    spots = [
        np.array(line.interpolate(s, normalized=True).coords[0]) + normal * moved * 4 * s * (1 - s) for s in shares
    ]
    return shapely.LineString(spots)


def session(piece, line, random):
    """The truth of a line of a piece, and its marks as they were measured from the guides; None where it is too short."""
    part = max(parts_of(piece, line), key=lambda one: one.length)
    if part.length < 6:
        return None
    guides, truth = guides_of(piece, line), truth_of(part)
    dots = max(8, round(part.length / APART))
    marks = []
    for i in range(dots):
        x, y = truth.interpolate((i + 1) / (dots + 1), normalized=True).coords[0]
        across, along = guides.measured((x + random.gauss(0, SCATTER / 2), y + random.gauss(0, SCATTER / 2)))
        marks.append(LaidMark(across=round(across, 1), along=round(along, 1)))
    return truth, Marked(marks=tuple(marks))


def lines_of(pattern):
    """Every line that is marked on a muslin, with its piece; here every third, in the sweep all of them."""
    found = [
        (piece, line)
        for piece in pattern
        if is_body(piece)
        for line in dict.fromkeys(e.lineage for e in piece.edges if e.role in ROLES and e.lineage != piece.on_fold)
    ]
    return found[::EVERY]


def test_each_line_of_every_garment_can_be_draped_anew_on_it_or_it_says_why_not(evaluator):
    random, counts, off = Random(6), Counter(), []
    for name, recipe in garments(BODY).items():
        fitted = Fitted(recipe, evaluator.evaluate(recipe, owner="anew"))
        for piece, line in lines_of(fitted.final):
            made = session(piece, line, random)
            if made is None:
                counts["short"] += 1
                continue
            truth, marked = made
            seen = Seen(KIND, at=Pointed(piece.name, line, marked))
            for way in ways_of(seen, fitted, None):
                key = way.remedy.key
                about = (name, piece.name, line, key)
                if way.refused is not None:
                    assert isinstance(way.refused, IzettError) and way.refused.fix, about
                    counts[f"{key} refused"] += 1
                    continue
                after = evaluator.evaluate(with_deeds(recipe, way.worked.deeds, ["new"]), owner="anew")
                stage = after.of("new")
                if stage.failure is not None:
                    assert isinstance(stage.failure, StepRefused) and stage.failure.fix, about
                    counts[f"{key} could not act"] += 1
                    continue
                counts[f"{key} acted"] += 1
                if key == "finished":
                    now = next(p for p in stage.left if p.name == piece.name)
                    part = min(parts_of(now, line), key=lambda one: truth.distance(shapely.Point(one.ends[0])))
                    drawn = shapely.LineString([p for e in part.edges for p in e.curve.flattened()])
                    off += [drawn.distance(truth.interpolate(s, normalized=True)) for s in np.linspace(0.02, 0.98, 25)]
                    assert {e.lineage for e in now.edges} == {e.lineage for e in piece.edges}, about
    print(dict(counts), np.percentile(off, [50, 95, 100]).round(3))
    assert counts["finished acted"] >= 75 / EVERY
    assert counts["under acted"] >= 36 / EVERY
    assert counts["finished could not act"] <= 0.1 * counts["finished acted"]
    assert np.percentile(off, 95) <= 0.2, "within 2 mm of the truth"
    assert max(off) <= 0.8, "a neckline is drawn square at the centre, as these marks are not"


def dress(evaluator, *steps):
    made = [*(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS)), *steps]
    recipe = Recipe("bodice", BODY, also=DRESS_BLOCKS[1:], steps=tuple(made))
    return Fitted(recipe, evaluator.evaluate(recipe, owner="dress"))


def hole(fitted):
    return next((p, e.lineage) for p in fitted.final for e in p.edges if e.role is Role.ARMHOLE and e.curve.length > 6)


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT, Half.RIGHT])
def test_an_armhole_draped_anew_on_a_styled_dress_is_drawn_on_its_half_and_the_sleeve_follows(evaluator, half):
    fitted = dress(evaluator)
    piece, line = hole(fitted)
    _, marked = session(piece, line, Random(2))
    seen = Seen(KIND, half=half, at=Pointed(piece.name, line, marked))
    finished = next(way for way in ways_of(seen, fitted, None) if way.remedy.key == "finished")
    after = evaluator.evaluate(with_deeds(fitted.recipe, finished.worked.deeds, ["new"]), owner="dress")
    assert after.of("new").failure is None
    for own in (Half.LEFT, Half.RIGHT):
        was, now = (parts_of(marked_piece(e.half(own), piece.name), line)[0].length for e in (fitted.evaluation, after))
        assert (was != now) is (half in (own, Half.BOTH)), own
        for cap in after.half(own).seams_of(SeamKind.CAP):
            (old,) = [s for s in fitted.evaluation.half(own).seams_of(SeamKind.CAP) if s.name == cap.name]
            eased = [
                b - a for a, b in (seam_lengths(fitted.evaluation.half(own), old), seam_lengths(after.half(own), cap))
            ]
            assert eased[1] == pytest.approx(eased[0], abs=0.16), own


def test_a_line_that_the_style_draws_is_not_drawn_under_it(evaluator):
    """A lowered neckline lies elsewhere on the block: marked on the garment, it is the garment's line."""
    lowered = Step("n", "change_neckline", {"depth": 4.0})
    fitted = dress(evaluator, lowered)
    piece = next(p for p in fitted.final if any(e.lineage == "front.neck" for e in p.edges))
    _, marked = session(piece, "front.neck", Random(3))
    ways = {w.remedy.key: w for w in ways_of(Seen(KIND, at=Pointed(piece.name, "front.neck", marked)), fitted, None)}
    assert "The style draws" in ways["under"].refused.message
    assert ways["finished"].refused is None


def test_without_a_line_or_marks_it_is_no_finding(evaluator):
    fitted = dress(evaluator)
    for at in (None, Pointed("bodice_front"), Pointed("bodice_front", "front.neck")):
        with pytest.raises(StepRefused, match="asks for the line"):
            refuse(Seen(KIND, at=at), None, fitted)


def test_two_lines_draped_in_one_session_are_two_changes_and_a_dot_far_off_is_told(evaluator):
    fitted = dress(evaluator)
    seen = []
    for uid, name in (("a", "front.neck"), ("b", "back.neck")):
        piece = next(p for p in fitted.final if any(e.lineage == name for e in p.edges))
        _, marked = session(piece, name, Random(4))
        seen.append(Seen(KIND, at=Pointed(piece.name, name, marked), uid=uid))
    made = plan(seen, fitted.recipe, fitted.evaluation, lambda recipe: evaluator.evaluate(recipe, owner="dress"))
    assert [one.uids for one in made.deeds] == [("a",), ("b",)]
    assert made.conflicts == ()
    assert made.came is not None and {move.lineage for move in made.came.moved} >= {"front.neck", "back.neck"}
    x = seen[0].at.marked.marks[3]
    far = LaidMark(kind=MarkedAs.DOT, across=x.across + 3 * TOLD, along=x.along)
    marks = (*seen[0].at.marked.marks[:3], far, *seen[0].at.marked.marks[4:])
    odd = Seen(KIND, at=seen[0].at._replace(marked=Marked(marks=marks)))
    ways = ways_of(odd, fitted, lambda recipe: evaluator.evaluate(recipe, owner="dress"))
    (told,) = [way.refused for way in ways if way.remedy.key == "finished"]
    assert told is not None and "Mark 4" in told.message and "off the line" in told.message


def test_a_line_draped_anew_is_worked_in_on_the_command_line(evaluator, tmp_path, capsys):
    recipe = Recipe("bodice", BODY)
    piece = evaluator.evaluate(recipe).pattern.piece("bodice_front")
    line = next(edge.lineage for edge in piece.edges if edge.role is Role.NECK)
    truth, marked = session(piece, line, Random(3))
    rows = [f"front,dot,{mark.across}cm,{mark.along}cm" for mark in marked.marks]
    marks, out = tmp_path / "neck.csv", tmp_path / "anew.json"
    marks.write_text("\n".join(["panel,kind,across,along", *rows]))
    measures = tmp_path / "body.csv"
    measures.write_text("\n".join(["measure,name,reading,unit", *(f"{symbol},,{v},cm" for symbol, v in BODY.items())]))
    asked = [
        "fit",
        "--measures",
        str(measures),
        "--out",
        str(out),
        "--find",
        f"draped_anew at={piece.name}/{line} marks={marks}",
    ]
    assert main(asked) == 0
    assert "draped_anew: under" in capsys.readouterr().out
    pattern, _ = read_pattern(out.read_text())
    drawn = shapely.LineString(
        [p for e in pattern.piece(piece.name).edges if e.lineage == line for p in e.curve.flattened()]
    )
    assert max(drawn.distance(truth.interpolate(s, normalized=True)) for s in np.linspace(0.05, 0.95, 20)) < 0.35
    marks.write_text("panel,kind,across,along\nfront,notch,1,2\n")
    assert main(asked) == 2
    assert "Mark 1 is a notch" in capsys.readouterr().err
    assert main([*asked[:-1], f"draped_anew marks={marks}"]) == 2
    assert "at=PIECE/LINE" in capsys.readouterr().err
