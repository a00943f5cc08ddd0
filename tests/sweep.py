"""`make sweep`: draft for every body there is, in both schools, and count what holds (no test: figures)."""

from collections import Counter
from time import perf_counter

from izett.drafting.method import draft
from izett.drafting.methods.bodice import METHOD
from izett.errors import IzettError
from tests.bodies import extremes, measured_women, size_series, tape_measured
from tests.core.invariants import broken


def main() -> None:
    print(f"{'bodies':<16}{'school':<14}{'drafts':>7}{'hold':>7}{'share':>9}{'refused':>9}{'ms each':>9}")
    notices: Counter[str] = Counter()
    for bodies in (measured_women, size_series, extremes, tape_measured):
        for school in METHOD.sheet.schools:
            held = refused = 0
            everyone = bodies()
            began = perf_counter()
            for body in everyone:
                try:
                    found = draft(METHOD, body, school=school)
                except IzettError as error:
                    refused += 1
                    print("  refused:", error, body)
                    continue
                notices.update(notice.code for notice in found.notices)
                faults = list(broken(found))
                held += not faults
                if faults:
                    print("  broken:", faults, body)
            each = (perf_counter() - began) / len(everyone) * 1e3
            share = f"{held / len(everyone):.2%}"
            print(f"{bodies.__name__:<16}{school:<14}{len(everyone):>7}{held:>7}{share:>9}{refused:>9}{each:>9.1f}")
    print("notices:", dict(notices.most_common()))


if __name__ == "__main__":
    main()
