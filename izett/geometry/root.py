"""Finding where a function passes through nothing, between two bounds."""

from collections.abc import Callable


def root(function: Callable[[float], float], low: float, high: float, *, within: float = 1e-10) -> float:
    """Return a root of `function` between `low` and `high`, at which it has opposite signs, to `within`.

    Brent's method, by scipy.

    Raises:
        ValueError: the function has the same sign at both bounds.
    """
    # scipy's optimisers take about a second to import: a program that has not drafted yet need not wait for them.
    from scipy.optimize import brentq  # noqa: PLC0415

    return float(brentq(function, low, high, xtol=within))
