"""`python -m tests.fit`: fit the estimate rules that openintro bdims can test, and show them beside the rules as they stand.

Fitted on the people with even numbers, by least squares; the error is on the odd ones. The rules carry the fitted numbers
rounded, so that the sums can be followed by hand.
"""

import numpy as np

from izett.measuring.estimates import estimates
from tests.core.measuring.completed import measured_people
from tests.core.measuring.test_estimates import HELD_OUT


def fitted(symbol: str, known: tuple[str, ...]) -> tuple[np.ndarray, float]:
    """Return the coefficients of `known` with the constant last, and the error on the people left out, in cm."""
    people = measured_people()
    given = np.array([[*(person[s] for s in known), 1.0] for person in people])
    wanted = np.array([person[symbol] for person in people])
    coefficients, *_ = np.linalg.lstsq(given[::2], wanted[::2], rcond=None)
    misses = wanted[1::2] - given[1::2] @ coefficients
    return coefficients, float(np.sqrt((misses**2).mean()))


def main() -> None:
    """Print a line for each rule and way of it."""
    for symbol, known in HELD_OUT:
        # The bust of these people is the upper chest with a cup that was drawn for each: it says nothing more.
        read = tuple(s for s in known if s != "bust_girth")
        coefficients, error = fitted(symbol, read)
        terms = " + ".join(f"{c:.3f} {s}" for c, s in zip(coefficients, (*read, ""), strict=True))
        way = estimates().rules[symbol].way(known)
        print(f"{symbol:<16}{terms}, ± {error:.2f}\n{'':<16}stands: {way.formula.text}, ± {way.spread:g}")


if __name__ == "__main__":
    main()
