"""What a step tells of a change is what the outlines have changed by, measured here on their own: by shapely."""

import re
from collections import Counter
from math import dist
from statistics import fmean

import pytest
import shapely

from izett.catalogue import catalogue
from izett.pattern.facts import Corner, Region, Role, Zone
from izett.pattern.worn import height_of
from izett.recipe.model import Recipe, Step
from tests.bodies import with_hips

EXAMPLES = [
    pytest.param(key, params, id=f"{key}-{i}")
    for key, operation in catalogue().operations.items()
    for i, params in enumerate(operation.examples)
]
BODIES = with_hips(69)[:12]
FINE = 0.001
#: cm. As near as a chord is to its arc, and a section of the paper to a level that lies aslant over a dart.
NEAR = 0.1
#: Words that tell a change. What is told as a state, before or now, is another sum.
CHANGED = re.compile(
    r"\b(longer|shorter|wider|narrower|lower|higher|up|down|taken|added|moved|towards|further back|nearer|bulge|hollow|pleat)\b"
)
#: Of these the words tell a state or a plan: the longer of two edges, how far at most, how many, how deep a dart is.
NO_CHANGE = re.compile(r"longer edge|at most|taken in by all|dart taken up|furthest|lines taken|accepted|across$")
FRONT, BACK = Zone.FRONT, Zone.BACK
CORNERS = {"underarm": Corner.UNDERARM, "waist": Corner.WAIST_SIDE, "hip": Corner.HIP_SIDE, "hem": Corner.HEM_SIDE}


def paper(piece):
    return shapely.polygons(piece.outline(flatness=FINE))


def long(pattern, meant):
    """The length of all edges that are meant, without the legs of darts."""
    edges = [edge for piece in pattern for edge in piece.edges if not edge.is_leg and meant(piece, edge)]
    return sum(shapely.linestrings(edge.curve.flattened()).length for edge in edges)


def grown(meant, share=1.0):
    return lambda before, after: share * (long(after, meant) - long(before, meant))


def role(wanted, zone=None):
    return lambda piece, edge: edge.role is wanted and zone in (None, piece.zone)


def corners(pattern, which, zone=None):
    """Where a corner lies, by the name of its piece."""
    found = {piece.name: (piece, piece.corner(which)) for piece in pattern if zone in (None, piece.zone)}
    return {name: piece.vertex(vertex) for name, (piece, vertex) in found.items() if vertex is not None}


def gone_out(which):
    """How far a corner of the side has gone out, square to the stretch of the side that ends there; the mean of the pieces."""

    def read(before, after):
        was, now = corners(before, which), corners(after, which)
        found = []
        for name, (x, y) in was.items():
            sides = [e.curve for e in before.piece(name).edges if e.role is Role.SIDE]
            if before.piece(name).darts and which is Corner.UNDERARM:
                # Above the bust dart the side is turned by it.
                sides = [side for side in sides if (x, y) in (side.start, side.end)]
            ends = [spot for side in sides for spot in (side.start, side.end)]
            (ax, ay), (bx, by) = min(ends, key=lambda p: p[1]), max(ends, key=lambda p: p[1])
            line = shapely.linestrings([(x + t * (bx - ax), y + t * (by - ay)) for t in (-9, 9)])
            out = shapely.distance(line, shapely.points(now[name]))
            found.append(out if now[name][0] > x else -out)
        return fmean(found)

    return read


def gone_up(which, zone):
    def read(before, after):
        was, now = corners(before, which, zone), corners(after, which, zone)
        return fmean(now[name][1] - was[name][1] for name in was)

    return read


def off_its_line(before, after):
    """How far the tip of the shoulder lies off the line that the seam was."""
    (seam,) = (edge for piece in before if piece.zone is BACK for edge in piece.edges if edge.role is Role.SHOULDER)
    (ax, ay), (bx, by) = seam.curve.start, seam.curve.end
    line = shapely.linestrings([(ax + t * (bx - ax), ay + t * (by - ay)) for t in (-9, 9)])
    return shapely.distance(line, shapely.points(*corners(after, Corner.SHOULDER_TIP, BACK).values()))


def level(name):
    """A level around, whose width on a piece is proved by sections elsewhere; the waist as its seam is long."""

    def wide(pattern):
        if name == "waist" and any(edge.role is Role.WAIST for piece in pattern for edge in piece.edges):
            upper = [p for p in pattern if p.region is Region.UPPER] or list(pattern)
            return 2 * long(upper, role(Role.WAIST))
        return sum(piece.level(name) * piece.times for piece in pattern if piece.zone in (FRONT, BACK))

    return lambda before, after: wide(after) - wide(before)


def at_armhole(times):
    """How much further out the armhole lies half-way up between the underarm and the shoulder's tip."""

    def out(pattern, zone):
        (piece,) = (piece for piece in pattern if piece.zone is zone and piece.region is Region.UPPER)
        low, high = (piece.vertex(piece.corner(c))[1] for c in (Corner.UNDERARM, Corner.SHOULDER_TIP))
        hole = next(edge for edge in piece.edges if edge.role is Role.ARMHOLE)
        # Where both curves of the armhole meet: the across line.
        y = hole.curve.points[3][1]
        assert low < y < high
        cut = paper(piece).intersection(shapely.linestrings([(-90, y), (90, y)]))
        return cut.bounds[2]

    return lambda was, now, params: times * (out(now, Zone(params["part"])) - out(was, Zone(params["part"])))


def darts(pattern, read):
    return {dart.name: read(piece, dart) for piece in pattern for dart in piece.darts}


def of_dart(read):
    """By how much what is read of the darts has changed, where it has changed most."""

    def changed(before, after):
        was, now = darts(before, read), darts(after, read)
        return max((now[name] - was[name] for name in was), key=abs)

    return changed


def under_the_upper_dart(before, after):
    """By how much less of the side seam lies under the uppermost dart of a front: the dart opens so much lower."""

    def left(pattern):
        piece = next(p for p in pattern if p.zone is FRONT and p.darts and any(e.role is Role.SIDE for e in p.edges))
        sides = {name for edge in piece.edges if edge.role is Role.SIDE for name in (edge.start, edge.end)}
        mouths = [[piece.vertex(name)[1] for name in dart.mouth] for dart in piece.darts if set(dart.mouth) <= sides]
        foot = min(max(mouths, key=max))
        below = [e for e in piece.edges if e.role is Role.SIDE and max(e.curve.start[1], e.curve.end[1]) <= foot + 1e-9]
        return sum(edge.curve.length for edge in below)

    return left(before) - left(after)


def bowed(before, after):
    """How far the legs stand off their chords that are drawn otherwise than before."""
    was = {(edge.start, edge.end): edge.curve.points for piece in before for edge in piece.edges if edge.is_leg}
    legs = [e.curve for p in after for e in p.edges if e.is_leg and was[e.start, e.end] != e.curve.points]
    chords = [shapely.linestrings([leg.start, leg.end]) for leg in legs]
    return max(
        shapely.hausdorff_distance(shapely.linestrings(leg.flattened()), chord)
        for leg, chord in zip(legs, chords, strict=True)
    )


def lined(side):
    """By how much linings end higher than what they line, or reach further back."""

    def read(_before, after):
        paired = [(piece, after.piece(piece.lining.of)) for piece in after if piece.lining is not None]
        off = [(paper(own).bounds, paper(of).bounds) for own, of in paired]
        return max((own[1] - of[1], of[0] - own[0])[side] for own, of in off)

    return read


def crown(pattern):
    return max(paper(piece).bounds[3] for piece in pattern if any(edge.role is Role.CAP for edge in piece.edges))


def at_line(of):
    """A line that only the step's own parameters name."""

    def read(before, after, params):
        return grown(lambda _, edge: edge.lineage == params[of]["along"])(before, after)

    return read


def seam_end(end):
    """How far the seam has gone at one of its ends, on the piece that it has moved into."""

    def read(before, after, params):
        (seam,) = (seam for seam in before.seams if seam.name == params["seam"])
        into = 0 if params["at_start"] + params["at_end"] >= 0 else 1
        vertex = getattr(seam.sides[into][0 if end == "start" else -1], end)
        was, now = (next(p.vertex(vertex) for p in each if p.holds(vertex)) for each in (before, after))
        return dist(was, now) * (1 if into == 0 else -1)

    return read


def above_bust(before, after, params):
    """How far both edges of the seam have gone at their upper ends, on both halves."""
    (seam,) = (seam for seam in before.seams if seam.name == params["seam"])
    tops = [max((s.start, s.end), key=lambda v: vertex(before, v)[1]) for side in seam.sides for s in side]
    return 2 * sum(dist(vertex(before, top), vertex(after, top)) for top in tops)


def vertex(pattern, name):
    return next(piece.vertex(name) for piece in pattern if piece.holds(name))


def under_bust(before, after, _params, body):
    """How much less paper there is in front at that height, on both halves."""
    y = height_of(before, body, "underbust")
    line = shapely.linestrings([(-90, y), (90, y)])

    def wide(pattern):
        return sum(2 * paper(piece).intersection(line).length for piece in pattern if piece.zone is FRONT)

    return wide(before) - wide(after)


def on_piece(title, of):
    return lambda piece, edge: edge.role is of and piece.title.lower() == title.lower()


#: How each change that a step tells is measured, by the words in which it is told.
MEASURED = {
    r"longer at the tip": lambda: grown(role(Role.SHOULDER, BACK)),
    r"lower at the tip": lambda: off_its_line,
    r"lower at the underarm": lambda: grown(role(Role.SIDE, BACK), -1),
    r"underarm lower(?:, .*back)?": lambda: lambda was, now: -gone_up(Corner.UNDERARM, BACK)(was, now),
    r"underarm lower, .*front": lambda: lambda was, now: -gone_up(Corner.UNDERARM, FRONT)(was, now),
    r"armhole of the (.*), longer": lambda title: grown(on_piece(title, Role.ARMHOLE)),
    r"longer at the side(?:, front)?": lambda: grown(role(Role.SIDE, FRONT)),
    r"longer at the side, back": lambda: grown(role(Role.SIDE, BACK)),
    r"longer at the underarm seam": lambda: grown(role(Role.UNDERARM), 0.5),
    r"front waist longer": lambda: grown(role(Role.WAIST, FRONT)),
    r"back waist longer": lambda: grown(role(Role.WAIST, BACK)),
    r"waist seam longer, around": lambda: grown(role(Role.WAIST), 2),
    r"waist seam up": lambda: gone_up(Corner.WAIST_CF, FRONT),
    r"neck and shoulder up, front": lambda: gone_up(Corner.NECK_SHOULDER, FRONT),
    r"neck and shoulder up, back": lambda: gone_up(Corner.NECK_SHOULDER, BACK),
    r"wider around at the (bust|waist|hip)": level,
    r"taken in at the (waist), around": lambda name: lambda was, now: -level(name)(was, now),
    r"taken in under the bust, around": lambda: under_bust,
    r"taken in above the bust, around": lambda: above_bust,
    r"taken out": lambda: lambda was, now, params: -at_line("at")(was, now, params),
    r"added": lambda: at_line("edge"),
    r"moved where (?:the seam|it) (start|end)s": seam_end,
    r"wider at the (underarm|waist|hip|hem), each edge": lambda name: gone_out(CORNERS[name]),
    r"wider at the hem of the (.*)": lambda title: grown(on_piece(title, Role.HEM)),
    r"wider at the armhole, each side": lambda: at_armhole(1),
    r"wider across the whole (?:front|back)": lambda: at_armhole(2),
    r"longer (?:at|along) the (skirt .*|sleeve .*)": lambda words: grown(
        lambda _, edge: re.sub(r"[._]", " ", edge.lineage) == words
    ),
    r"bicep line wider": lambda: (
        lambda was, now: sum(p.level("bicep") for p in now) - sum(p.level("bicep") for p in was)
    ),
    r"added along the cap": lambda: grown(role(Role.CAP)),
    r"crown higher": lambda: lambda was, now: crown(now) - crown(was),
    r"towards the side": lambda: of_dart(lambda _, dart: dart.pivot[0]),
    r"up": lambda: of_dart(lambda _, dart: dart.pivot[1]),
    r"further back": lambda: of_dart(lambda piece, dart: dist(piece.vertex(dart.tip), dart.pivot)),
    r"bulge of each leg|hollow of each leg": lambda: bowed,
    r"longer at the centre (front|back)": lambda zone: grown(
        lambda piece, edge: edge.role in (Role(f"centre_{zone}"), Role.CROTCH) and piece.zone is Zone(zone)
    ),
    r"hem of each leg longer(?:, front)?": lambda: grown(role(Role.HEM, FRONT)),
    r"hem of each leg longer, back": lambda: grown(role(Role.HEM, BACK)),
    r"hem of the sleeve longer": lambda: grown(role(Role.HEM)),
    r"(front|back) crotch seam longer": lambda zone: grown(role(Role.CROTCH, Zone(zone))),
    r"longer from mouth to tip": lambda: of_dart(
        lambda piece, dart: dist(
            [fmean(at) for at in zip(*map(piece.vertex, dart.mouth), strict=True)], piece.vertex(dart.tip)
        )
    ),
    r"eased into the back shoulder, more": lambda: grown(role(Role.SHOULDER, BACK)),
    r"shorter at the hem": lambda: lined(0),
    r"longer than it was": lambda: (
        lambda was, now, params: grown(lambda _, edge: edge.lineage == params["line"])(was, now)
    ),
    r"dart lower on the side": lambda: under_the_upper_dart,
    r"pleat": lambda: lined(1),
}
OPPOSITES = {
    "shorter": "longer",
    "narrower": "wider",
    "underarm higher": "underarm lower",
    "higher at": "lower at",
    "down": "up",
}
OPPOSITES["shorter at the hem"] = "shorter at the hem"


def measured(told, before, after, params, body):
    """What a sum that tells a change tells, and what was measured for it.

    Raises:
        AssertionError: no measure is known for it: a step tells something that nothing here reads.
    """
    what, value = told.what, told.value
    for word, opposite in OPPOSITES.items():
        if re.match(rf"(.*\b)?{word}\b", what) and "at the hem" not in what[:18]:
            what, value = what.replace(word, opposite, 1), -value
            break
    for pattern, reader in MEASURED.items():
        if (match := re.fullmatch(pattern, what)) is not None:
            read = reader(*match.groups())
            given = (before, after, params, body)[: read.__code__.co_argcount]
            return value, read(*given)
    raise AssertionError(f"{what}: how is that measured?")


#: The steps that tell a change: a change of their wording would else pass every sum over.
TELLING = {
    "add_copy",
    "aim_dart",
    "change_arm",
    "change_armhole",
    "change_bust",
    "change_crotch",
    "change_dart",
    "change_ease",
    "change_leg",
    "change_length",
    "change_shoulder",
    "change_side",
    "contour",
    "flare",
    "follow_waist",
    "lengthen",
    "puff_sleeve",
    "reach_wedge",
    "recap_sleeve",
    "redraw_edge",
    "shape_dart",
    "shape_hem",
    "shape_seam",
    "shift_seam",
    "spread_piece",
    "take_gap",
    "transpose_waist",
    "wedge",
    "widen_across",
}


@pytest.mark.parametrize(("kind", "params"), EXAMPLES)
def test_each_change_that_a_step_tells_is_what_was_measured(kind, params, evaluator):
    operation = catalogue().operations[kind]
    acted = Counter()
    for body in BODIES:
        steps = (*operation.before, (kind, params))
        made = tuple(Step(f"s{i}", each, own) for i, (each, own) in enumerate(steps))
        known = {**body, "underbust_girth": body["bust_girth"] - 12}
        evaluation = evaluator.evaluate(Recipe(operation.blocks[0], known, also=operation.blocks[1:], steps=made))
        stages = [evaluation.draft.pattern, *(stage.left for stage in evaluation.stages)]
        index = next(i for i, stage in enumerate(evaluation.stages) if stage.step.uid == made[-1].uid)
        if evaluation.stages[index].failure is not None:
            continue
        acted["step"] += 1
        for line in evaluation.stages[index].sums:
            if CHANGED.search(line.what) and not NO_CHANGE.search(line.what):
                told, found = measured(line, stages[index], stages[index + 1], params, evaluation.body)
                assert told == pytest.approx(found, abs=NEAR, rel=0.02), (line.what, params)
                acted["told"] += 1
    assert acted["step"] >= 4
    assert bool(acted["told"]) is (kind in TELLING and params.get("kind") != "pocket")
