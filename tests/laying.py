"""Random pieces and cloths to lay, and what an independent eye finds wrong with a plan: shapely alone, no part of the core."""

from itertools import combinations
from math import cos, sin, tau
from random import Random

import shapely

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.cutouts import Wanted
from izett.finishing.sheet import sheet_pieces
from izett.geometry.curve import straight
from izett.pattern.document import CutFor, Intent, Pattern, Ready
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, LevelLine, Piece

#: cm, cm².
NEAR, OVER = 0.003, 0.01


def piece(name, corners, *, cut=2, on_fold=False, level=None):
    """A piece of straight edges, its first one the fold where it is cut on one; grain upright."""
    names = [f"{name}.{i}" for i in range(len(corners))]
    edges = [
        Edge(Role.FOLD if on_fold and i == 0 else Role.SIDE, f"{name}.line{i}", names[i], names[(i + 1) % len(names)],
             straight(corners[i], corners[(i + 1) % len(corners)]))
        for i in range(len(corners))
    ]  # fmt: skip
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    middle = sum(xs) / len(xs)
    grain = ((middle, min(ys) + 0.2 * (max(ys) - min(ys))), (middle, min(ys) + 0.8 * (max(ys) - min(ys))))
    lines = (LevelLine("waist", ((min(xs), level), (max(xs), level))),) if level is not None else ()
    fold = f"{name}.line0" if on_fold else None
    return Piece(name, name.replace("_", " ").capitalize(), name, cut, fold, grain, tuple(edges), lines=lines)


def sheets_of(*pieces, ready=None):
    """Pieces made ready, cut as they are drawn."""
    cut_for = CutFor("none", pieces={name: Ready(**said) for name, said in (ready or {}).items()})
    return sheet_pieces(Pattern(pieces, (), Intent(), allowances=cut_for))


def random_pieces(random: Random):
    """Some pieces, most of them as wide as pieces of clothes are, with inner corners as well."""
    found = []
    for number in range(random.randint(2, 8)):
        wide, high = random.uniform(6, 40), random.uniform(8, 75)
        on_fold = random.random() < 0.3
        corners = []
        if on_fold:
            wide /= 2
            corners = [(0.0, high), (0.0, 0.0), (wide * random.uniform(0.6, 1), random.uniform(0, 4))]
            corners += [(wide, high * random.uniform(0.3, 0.6)), (wide * random.uniform(0.3, 0.9), high)]
            if random.random() < 0.5:
                corners.insert(4, (wide * 0.6, high * 0.7))
        else:
            turns = sorted(random.uniform(0, tau) for _ in range(random.randint(4, 9)))
            corners = [
                (wide / 2 * (1 + cos(t) * random.uniform(0.6, 1)), high / 2 * (1 + sin(t) * random.uniform(0.6, 1)))
                for t in turns
            ]
        shape = shapely.Polygon(corners)
        if not shape.is_valid or shape.area < 20 or not shape.exterior.is_ccw:
            continue
        cut = random.choice((1, 1, 2) if on_fold else (1, 2, 2, 2, 4))
        found.append(piece(f"piece_{number}", corners, cut=cut, on_fold=on_fold, level=high * random.uniform(0.2, 0.8)))
    return found


def random_cloth(random: Random, fold: Fold | None = None) -> Cloth:
    """A cloth; with a repeat in one of three."""
    repeats = random.random() < 0.3
    return Cloth(
        width=random.choice((90, 112, 140, 150, 160)),
        selvedge=random.choice((0.0, 1.0, 1.5)),
        fold=fold or random.choice(list(Fold)),
        nap=random.random() < 0.4,
        repeat=(random.choice((0.0, 3.0, 5.5)), random.choice((0.0, 4.0, 12.0))) if repeats else (0.0, 0.0),
        match="waist" if repeats else "",
        gap=random.choice((0.0, 0.3, 0.5)),
    )


def wanted(*pieces, times=1, ready=None):
    return [Wanted(sheet, times) for sheet in sheets_of(*pieces, ready=ready)]


def faults(plan, pieces, cloth, *, times=1):
    """Yield what is wrong with a plan, as read from its outlines."""
    width = cloth.width / (1 if plan.fold in (Fold.OPEN, Fold.CROSSWISE) else 2)
    came = dict.fromkeys((p.name for p in pieces), 0)
    for number, laid in enumerate(plan.laid):
        own = [one for one in plan.placed if one.section == number]
        # What is laid open after what was folded has the whole width again.
        lying = width if number == 0 else laid.section.bed.width
        yield from _beside_each_other(own, cloth)
        yield from _on_the_cloth(own, laid, lying, cloth)
        yield from _matched(own, cloth)
        for one in own:
            came[one.spot.cutout.piece] += one.spot.cutout.layers // (2 if one.spot.cutout.on_fold else 1)
    for p in pieces:
        if came[p.name] != p.cut * times:
            yield f"{p.name}: {came[p.name]} of {p.cut * times}"


def _beside_each_other(own, cloth):
    shapes = [shapely.Polygon(one.outline) for one in own]
    for (a, one), (b, other) in combinations(zip(shapes, own, strict=True), 2):
        if a.intersection(b).area > OVER:
            yield f"{one.spot.cutout.piece} over {other.spot.cutout.piece}"
        elif cloth.gap and a.distance(b) < cloth.gap - NEAR:
            yield f"{one.spot.cutout.piece} {a.distance(b):.3f} from {other.spot.cutout.piece}"


def _on_the_cloth(own, laid, lying, cloth):
    folds = {Fold.LENGTHWISE: [0.0], Fold.FOUR_LAYERS: [0.0], Fold.BOTH_TO_MIDDLE: [0.0, lying]}
    here = folds.get(laid.section.bed.fold, [])
    clear = shapely.box(0, laid.start, lying, laid.start + laid.length).buffer(NEAR)
    for one in own:
        name, shape = one.spot.cutout.piece, shapely.Polygon(one.outline)
        left, _, right, _ = shape.bounds
        if shape.difference(clear).area > 0:
            yield f"{name} off the cloth"
        if one.spot.cutout.on_fold and not any(min(abs(left - f), abs(right - f)) < 1e-4 for f in here):
            yield f"{name} off its fold"
        for side in {0.0, lying} - set(here):
            if min(abs(left - side), abs(right - side)) < cloth.selvedge - NEAR:
                yield f"{name} on a selvedge"
        if one.turn not in ((0.0,) if cloth.nap else (0.0, 180.0)):
            yield f"{name} turned by {one.turn}"


def _matched(own, cloth):
    """Yield what does not meet along the cloth: the level of every piece at the same place of the repeat."""
    along = cloth.repeat[1]
    if not along:
        return
    places = []
    for one in own:
        shape = one.outline
        # The level as the piece has it, from its lower end, or from its upper one where it is turned.
        level = one.spot.cutout.match[1]
        high = shape[:, 1].max() - shape[:, 1].min()
        places.append(shape[:, 1].min() + (high - level if one.turn == 180.0 else level))
    for place in places:
        off = (place - places[0]) % along
        if min(off, along - off) > 1e-3:
            yield f"a level {off:.3f} off its repeat"


def drafted(cut: int, *, after: int = 0):
    """What is cut of several women's dresses and trousers, up to so many cut pieces; `after` leaves bodies out."""
    from izett.catalogue import catalogue
    from izett.recipe.evaluator import Evaluator
    from izett.recipe.model import Recipe
    from tests.bodies import with_hips
    from tests.core.blocks import cut_for

    evaluator = Evaluator(catalogue())
    found, number = [], 0
    for size, body in enumerate(with_hips(50)[after:]):
        for blocks in (("bodice", "sleeve", "skirt"), ("trousers",)):
            pattern = cut_for(evaluator.evaluate(Recipe(blocks[0], body, also=blocks[1:])).pattern, "home")
            for sheet in sheet_pieces(pattern):
                if number + sheet.number <= cut:
                    found.append(Wanted(sheet, 1, f"{size} {blocks[0]}"))
                    number += sheet.number
    return found
