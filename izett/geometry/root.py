"""Finding where functions pass through nothing: one between two bounds, or two at once from a start."""

from collections.abc import Callable

from izett.geometry.point import Undrawable
from izett.geometry.tolerance import SOLVED_LENGTH


def root(function: Callable[[float], float], low: float, high: float, *, within: float = 1e-10) -> float:
    """Return a root of `function` between `low` and `high`, at which it has opposite signs, to `within`.

    Brent's method, by scipy.

    Raises:
        Undrawable: the function has the same sign at both bounds.
    """
    # scipy's optimisers take about a second to import: a program that has not drafted yet need not wait for them.
    from scipy.optimize import brentq  # noqa: PLC0415

    ends = function(low), function(high)
    if not ends[0] * ends[1] <= 0:
        raise Undrawable(f"no root between {low:g} and {high:g}: {ends[0]:g} and {ends[1]:g} there")
    return float(brentq(function, low, high, xtol=within))


def roots(
    functions: Callable[[float, float], tuple[float, float]], start: tuple[float, float], *, within: float = 1e-10
) -> tuple[float, float]:
    """Return the two unknowns at which two functions are both nothing, near `start`, to about `within`.

    Powell's hybrid method, by scipy.

    Raises:
        Undrawable: none was found from there.
    """
    from scipy.optimize import root as solve  # noqa: PLC0415  (as above)

    found = solve(lambda v: functions(float(v[0]), float(v[1])), start, method="hybr", tol=within)
    missed = max(abs(float(m)) for m in found.fun)
    if not missed <= SOLVED_LENGTH:
        raise Undrawable(f"the two functions have no common root near {start}: {missed:g} is left")
    return float(found.x[0]), float(found.x[1])
