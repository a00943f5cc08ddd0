"""A simulated body scanner: a stand-in for a device, so that what a scanner delivers can be tried without one.

It is given a body, fills in by the estimate rules what that body does not say, and adds noise of a stated size, larger
for lengths between landmarks, which a scanner finds worse than girths (common practice, no single source). With the
same seed it delivers the same scan.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from random import Random

from izett.measuring.estimates import whole_body
from izett.measuring.measure import measures

DEVICE = "Izett simulated scanner"
#: cm. Standard deviation of the noise by kind of measure.
NOISE = {"large_girth": 0.4, "small_girth": 0.25, "length": 0.6, "height": 0.2, "width": 0.5}
#: What no scanner sees: hidden, seated, or said.
UNSEEN = frozenset({"crotch_depth", "waist_to_lap", "head_girth", "hood_loop", "bust_radius", "cup"})


@dataclass(frozen=True, slots=True)
class Scan:
    """What a scanner delivers.

    Attributes:
        device: which scanner.
        noise: standard deviation by measure, in cm.
        cm: lengths by symbol, in cm.
    """

    device: str
    noise: Mapping[str, float]
    cm: Mapping[str, float]


def scan(body: Mapping[str, float], *, seed: int) -> Scan:
    """Return a simulated scan of a body (cm by symbol)."""
    random = Random(seed)
    seen = {
        symbol: cm
        for symbol, cm in whole_body(body).items()
        if symbol not in UNSEEN and measures()[symbol].kind in NOISE
    }
    noise = {symbol: NOISE[measures()[symbol].kind] for symbol in seen}
    # Scanners deliver whole millimetres.
    return Scan(DEVICE, noise, {s: round(cm + random.gauss(0, noise[s]), 1) for s, cm in seen.items()})
