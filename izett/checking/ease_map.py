"""The ease map: at every level and local width, the pattern less the body, against what is wanted for cloth and fit.

Levels drawn on the pieces are measured along their lines; others straight across the paper at the height at which the
body has them, darts left out. It is a reading to look at, not a verdict. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from izett.pattern.document import PLACES
from izett.pattern.facts import Half, Zone
from izett.pattern.halves import marked, of_right, on_half
from izett.pattern.levels import width_at
from izett.pattern.piece import Piece
from izett.pattern.working import Readable
from izett.pattern.worn import LIMBS, around, halves_of, height_of, hem_width, is_body, narrowest, place_width, width

#: cm. How far from what is wanted an ease is still as meant, and from where on it is tight or loose.
AS_MEANT, FAR = 1.0, 3.0
#: What is wanted at levels that the fit does not name, as shares of the eases at two that it does.
BETWEEN: Mapping[str, tuple[str, str, float]] = {
    "underbust": ("bust", "waist", 0.5),
    "stomach": ("waist", "hip", 0.35),
    "high_hip": ("waist", "hip", 0.5),
    "elbow": ("bicep", "bicep", 0.6),
}
#: cm. Ease wanted at a hem, which neither the fit nor its neighbours give.
AT_HEM = 6.0
#: cm. An elbow with so much more than is wanted would let the wrist be narrower.
AT_ELBOW = 2.0
#: Local widths are wanted with this share of the ease at the bust.
LOCAL = {"across_front": 0.1, "across_back": 0.18}


@dataclass(frozen=True, slots=True)
class Place:
    """Ease at one place.

    Attributes:
        key, label: the level or local width.
        half: the limb that is meant, where left and right differ.
        view: the side of the figure that it is shown on: both, front or back.
        pattern, body: cm, all around, or straight across for a local width.
        fullness: what of the pattern is gathers, pleats or flare, cm: told apart from the ease.
        wanted: the ease wanted, cm.
        state: tight, close, as meant, loose.
        because: why it is as it is, in words, where another place asks for it.
    """

    key: str
    label: str
    view: str
    pattern: float
    body: float
    wanted: float
    state: str
    half: Half = Half.BOTH
    fullness: float = 0.0
    because: str = ""

    @property
    def ease(self) -> float:
        """Pattern less body and less its fullness, cm."""
        return self.pattern - self.fullness - self.body


LEVELS: tuple[tuple[str, str, str], ...] = (
    ("neck", "Neck", "neck_girth"),
    ("bust", "Bust", "bust_girth"),
    ("underbust", "Under the bust", "underbust_girth"),
    ("waist", "Waist", "waist_girth"),
    ("stomach", "Stomach", "stomach_girth"),
    ("high_hip", "High hip", "high_hip_girth"),
    ("hip", "Hip", "hip_girth"),
    ("thigh", "Thigh", "thigh_girth"),
    ("bicep", "Upper arm", "bicep_girth"),
    ("elbow", "Elbow", "elbow_girth"),
    ("wrist", "Wrist", "wrist_girth"),
    ("hem", "Hem", "hem_girth"),
)


def ease_map(pattern: Readable, body: Mapping[str, float]) -> list[Place]:
    """Return the ease at every place that both the pattern and the body have."""
    found = []
    for key, label, symbol in LEVELS:
        for half in halves_of(pattern.with_level(key)) if key in LIMBS else (Half.BOTH,):
            girth = on_half(body, symbol, half)
            around = _around(pattern, body, key, half) if girth is not None else 0.0
            if girth is not None and around > 0:
                full = pattern.fullness(key)
                place = _place(key, label, "both", around, girth, _wanted(pattern, key, half), full)
                found.append(place if half is Half.BOTH else replace(place, label=f"{label}, {half.value}", half=half))
    found = [_explained(place, found) for place in found]
    return [*found, *_local(pattern, body)]


def _explained(place: Place, places: Sequence[Place]) -> Place:
    """Return a wrist that is loose since the elbow needs its room: a straight seam narrows evenly, so the one sets the other."""
    if place.key != "wrist" or place.state != "loose":
        return place
    elbow = next((one for one in places if one.key == "elbow" and one.half in (place.half, Half.BOTH)), None)
    if elbow is None or elbow.ease - elbow.wanted > AT_ELBOW:
        return place
    return replace(place, because="a straight sleeve narrows evenly: narrower here, it would be tight at the elbow")


def _place(key: str, label: str, view: str, across: float, body: float, wanted: float, fullness: float = 0.0) -> Place:
    off = across - fullness - body - wanted
    state = "tight" if off < -FAR / 2 else "close" if off < -AS_MEANT else "loose" if off > FAR else "as meant"
    return Place(key, label, view, across, body, wanted, state, fullness=fullness)


def _wanted(pattern: Readable, key: str, half: Half = Half.BOTH) -> float:
    ease = pattern.intent.ease
    own = of_right(key) if half is Half.RIGHT else key
    if key in ease:
        return ease.get(own, ease[key])
    if key in BETWEEN:
        first, second, share = BETWEEN[key]
        a, b = ease.get(first, ease.get(second, 0.0)), ease.get(second, ease.get(first, 0.0))
        return a * share if first == second else a + (b - a) * share
    return PLACES.get(key, AT_HEM)


def _around(pattern: Readable, body: Mapping[str, float], key: str, half: Half) -> float:
    if (drawn := width(pattern, key, half)) > 0:
        return drawn
    if key in PLACES:
        return place_width(pattern, key)
    if key == "hem":
        return hem_width(pattern)
    height = height_of(pattern, body, key)
    return 0.0 if height is None else around(pattern, height)


def _local(pattern: Readable, body: Mapping[str, float]) -> Iterator[Place]:
    bust = pattern.intent.ease.get("bust", 0.0)
    for zone, symbol, label in (
        (Zone.FRONT, "across_front", "Across the front"),
        (Zone.BACK, "across_back", "Across the back"),
    ):
        narrow = narrowest(pattern, zone) if symbol in body else 0.0
        if narrow > 0:
            yield _place(symbol, label, str(zone), narrow, body[symbol], LOCAL[symbol] * bust)
    shoulder = place_width(pattern, "shoulder")
    if shoulder and "shoulder_length" in body:
        wanted = _wanted(pattern, "shoulder")
        yield _place("shoulder", "Shoulder", "both", shoulder, body["shoulder_length"], wanted)
    front = [piece for piece in pattern.in_zone(Zone.FRONT) if is_body(piece)]
    span = next((found for piece in front if (found := _between_points(piece)) is not None), None)
    if span is not None and "apex_span" in body:
        yield _place("apex_span", "Between the bust points", "front", span, body["apex_span"], 0.0)
    arc = sum(width_at(piece, "bust") * piece.times for piece in front)
    if arc and "front_bust_arc" in body:
        yield _place("front_bust_arc", "Front bust arc", "front", arc, body["front_bust_arc"], bust / 2)


def _between_points(piece: Piece) -> float | None:
    """Return how far (cm) the bust points lie apart; None where the piece has none."""
    points = marked(piece, "apex")
    if not points:
        return None
    # A half is drawn with its centre upright at 0; a whole piece has both points.
    return 2 * abs(points[0][0]) if len(points) == 1 else max(p[0] for p in points) - min(p[0] for p in points)
