"""How far long work has come: told by whoever does it, shown and perhaps stopped by whoever waits for it."""

from collections.abc import Callable

#: Told how many parts are done, of how many; raises where the work is not wanted any more.
Progress = Callable[[int, int], None]


def untold(done: int, of: int) -> None:
    """Take no notice: for whoever does not wait."""
