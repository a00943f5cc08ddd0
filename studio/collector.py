"""The collector of a process that remembers much: its rounds short and seldom."""

import gc

#: Objects made before the youngest are gone through, and rounds of each age before the next older are.
COLLECT_AFTER = (50_000, 20, 50)


def settle() -> None:
    """Keep the collector's rounds short and seldom: they would be felt in a live edit.

    Patterns have no cycles and are freed by counting; what is loaded, and what is remembered, need not be gone through.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(*COLLECT_AFTER)
