"""`make sweep`: every starter set for every body there is, and count what holds (no test: figures)."""

from collections import Counter
from time import perf_counter

from izett.drafting.sets import starter_sets
from izett.errors import IzettError
from izett.finishing.allowances import Allowances, purposes
from izett.finishing.sheet import sheet_pieces
from tests.bodies import with_hips
from tests.core.blocks import cut_for, drafted_set, faults
from tests.cutting_lines import looked_at
from tests.hostile import random_recipes, tried


def main() -> None:
    print(f"{'set':<16}{'drafts':>7}{'hold':>7}{'share':>9}{'refused':>9}{'ms each':>9}")
    notices: Counter[str] = Counter()
    everyone = with_hips()
    for of in starter_sets().values():
        held = refused = 0
        spent = 0.0
        for body in everyone:
            began = perf_counter()
            try:
                found = drafted_set(of, body)
            except IzettError as error:
                refused += 1
                print("  refused:", error, body)
                continue
            finally:
                spent += perf_counter() - began
            notices.update(notice.code for notice in found.notices)
            wrong = list(faults(found))
            held += not wrong
            if wrong:
                print("  broken:", wrong, body)
        each, share = spent / len(everyone) * 1e3, f"{held / len(everyone):.2%}"
        print(f"{of.key:<16}{len(everyone):>7}{held:>7}{share:>9}{refused:>9}{each:>9.1f}")
    print("notices:", dict(notices.most_common()))
    cut(everyone)
    hostile()


def cut(everyone: list) -> None:
    """Look along every edge of every set, cut for every purpose, on every body; count what lies off its allowance."""
    seen: Counter[str] = Counter()
    for of in starter_sets().values():
        for body in everyone:
            try:
                found = drafted_set(of, body)
            except IzettError:
                continue
            if any(faults(found)):
                # Told as broken above, and by Check: there is no outline to cut along.
                seen["unsound as drafted"] += 1
                continue
            pattern = found.pattern
            for purpose in purposes():
                garment = cut_for(pattern, purpose)
                for sheet in sheet_pieces(garment):
                    try:
                        seen["places looked at"] += looked_at(sheet, Allowances.of_pattern(garment))
                    except AssertionError as fault:
                        seen["OFF"] += 1
                        print("  off its allowance:", of.key, purpose, sheet.piece.name, fault, body)
                    seen["pieces"] += 1
    print("cutting lines:", dict(seen))


#: Steps that hostile hands try, beyond the fixed part in the tests; and every how manieth garment is printed.
STEPS, PRINTED = 20_000, 50


def hostile() -> None:
    """Try random steps, each garment worked, checked, drawn, written and read back; count the faults."""
    seen: Counter[str] = Counter()
    for i, (step, evaluation) in enumerate(random_recipes(2026, STEPS)):
        seen["acted" if evaluation.of(step.uid).failure is None else "refused"] += 1
        try:
            tried(evaluation, printed=i % PRINTED == 0)
        except Exception as fault:
            seen["FAULT"] += 1
            print("  fault:", step, fault)
    print("random steps:", dict(seen))


if __name__ == "__main__":
    main()
