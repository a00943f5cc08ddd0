"""What the things of a pattern are: typed facts, set by a drafting method, by the step that makes a thing, or by hand.

Names only tell things apart. Whatever a step, a check, an allowance or a reading wants to know of a piece, an edge, a
corner or a seam is one of these facts, so a draped or traced piece is as good as a drafted one.
"""

from enum import StrEnum


class Role(StrEnum):
    """The class of an edge, for checks, allowances and display."""

    CENTRE_FRONT = "centre_front"
    CENTRE_BACK = "centre_back"
    NECK = "neck"
    SHOULDER = "shoulder"
    ARMHOLE = "armhole"
    SIDE = "side"
    WAIST = "waist"
    HEM = "hem"
    CAP = "cap"
    UNDERARM = "underarm"
    INSEAM = "inseam"
    CROTCH = "crotch"
    #: A seam within a block: a style line, the edge of a godet, of a gusset or of what is sewn on.
    PANEL = "panel"
    FOLD = "fold"
    #: Cut as it is drawn: turnings and allowances lie inside it.
    CUT_EDGE = "cut_edge"
    DART_LEG = "dart_leg"


#: Edges at the middle of the body.
CENTRES = (Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.FOLD)
#: The two centre lines themselves.
CENTRE_LINES = (Role.CENTRE_FRONT, Role.CENTRE_BACK)


class Zone(StrEnum):
    """What of the body a piece, or an edge of a piece that goes around, lies on."""

    FRONT = "front"
    BACK = "back"
    SLEEVE = "sleeve"
    #: Front and back in one, such as a straight-cut body.
    BODY = "body"
    GUSSET = "gusset"
    #: A strip or a shape that is sewn on: a cuff, a neckband, a flounce, a godet, a pocket.
    ADDED = "added"


class Region(StrEnum):
    """Which part of the body a block clothes."""

    UPPER = "upper"
    SKIRT = "skirt"
    LEGS = "legs"
    ARM = "arm"
    NONE = ""


class Half(StrEnum):
    """Which half of the body a piece, a seam or a step is for."""

    BOTH = "both"
    LEFT = "left"
    RIGHT = "right"

    @property
    def other(self) -> "Half":
        """The half across the centre; both stays both."""
        return {Half.LEFT: Half.RIGHT, Half.RIGHT: Half.LEFT}.get(self, Half.BOTH)


class Layer(StrEnum):
    """Which layer of the garment a piece is cut for. Only the outer layer goes around the body."""

    OUTER = "outer"
    LINING = "lining"
    FACING = "facing"
    INTERFACING = "interfacing"
    STRENGTH = "strength"
    #: Sewn on top, or caught in a seam by its end: a pocket, a loop, a tie.
    APPLIED = "applied"


class Lie(StrEnum):
    """How a piece lies on the thread, beside how it was drafted."""

    STRAIGHT = "straight"
    BIAS = "bias"
    ACROSS = "across"


class Corner(StrEnum):
    """Which corner of a block a vertex is: the standard names of the trade."""

    NECK_CF = "neck_cf"
    NECK_CB = "neck_cb"
    NECK_SHOULDER = "neck_shoulder"
    SHOULDER_TIP = "shoulder_tip"
    ACROSS_CB = "across_cb"
    UNDERARM = "underarm"
    UNDERARM_FRONT = "underarm_front"
    UNDERARM_BACK = "underarm_back"
    BUST_SIDE = "bust_side"
    SIDE_BEND = "side_bend"
    WAIST_CF = "waist_cf"
    WAIST_CB = "waist_cb"
    WAIST_SIDE = "waist_side"
    HIP_SIDE = "hip_side"
    HEM_CF = "hem_cf"
    HEM_CB = "hem_cb"
    HEM_SIDE = "hem_side"
    HEM_INSEAM = "hem_inseam"
    KNEE_SIDE = "knee_side"
    KNEE_INSEAM = "knee_inseam"
    CROTCH_TOP = "crotch_top"
    FORK = "fork"
    CAP_TOP = "cap_top"
    WRIST_FRONT = "wrist_front"
    WRIST_BACK = "wrist_back"
    #: The upper and the lower end of a line that a step drew across a piece.
    LINE_START = "line_start"
    LINE_END = "line_end"


#: Corners at the middle of the body.
CENTRE_CORNERS = (
    Corner.NECK_CF,
    Corner.NECK_CB,
    Corner.WAIST_CF,
    Corner.WAIST_CB,
    Corner.HEM_CF,
    Corner.HEM_CB,
)


class SeamKind(StrEnum):
    """Which seam of a garment a seam is."""

    SHOULDER = "shoulder"
    SIDE = "side"
    CAP = "cap"
    WAIST = "waist"
    UNDERARM = "underarm"
    INSEAM = "inseam"
    #: Between two panels of one block: a style line, a princess line, a yoke.
    PANEL = "panel"
    #: Of a strip, a facing or a flounce to the edge that it follows.
    ADDED = "added"
