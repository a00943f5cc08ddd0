"""In how many of its cases a property acted: one that passes over them all would hold of anything."""

from collections import Counter
from functools import wraps


class PassedOver(Exception):
    """Raised in a case in which a property has nothing to hold."""


def acting(least):
    """Let a property of hypothesis fail where it acted in less than a share `least` of its cases."""

    def of(test):
        inner, seen = test.hypothesis.inner_test, Counter()

        @wraps(inner)
        def counted(*args, **kwargs):
            try:
                inner(*args, **kwargs)
            except PassedOver:
                seen[False] += 1
            else:
                seen[True] += 1

        test.hypothesis.inner_test = counted

        @wraps(test)
        def bounded(*args, **kwargs):
            seen.clear()
            test(*args, **kwargs)
            share = seen[True] / seen.total()
            assert share >= least, f"acted in {seen[True]} of {seen.total()} cases only"

        return bounded

    return of
