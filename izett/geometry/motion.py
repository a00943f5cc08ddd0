"""Rigid moves: a turn followed by a shift. What paper can do without being stretched."""

from dataclasses import dataclass
from math import cos, sin

from izett.geometry.point import Point, Vector


@dataclass(frozen=True, slots=True)
class Motion:
    """The map p → turn(p) + shift, with the turn kept as cosine and sine."""

    cosine: float
    sine: float
    shift: Vector

    @classmethod
    def turning(cls, angle: float, *, about: Point) -> "Motion":
        """Return the turn by `angle` radians, counter-clockwise, about a fixed point."""
        c, s = cos(angle), sin(angle)
        x, y = about
        return cls(c, s, (x - c * x + s * y, y - s * x - c * y))

    @classmethod
    def sliding(cls, shift: Vector) -> "Motion":
        """Return the slide by `shift`."""
        return cls(1.0, 0.0, shift)

    def __call__(self, point: Point) -> Point:
        """Return where the move takes a point."""
        x, y = point
        return (
            self.cosine * x - self.sine * y + self.shift[0],
            self.sine * x + self.cosine * y + self.shift[1],
        )

    def direction(self, vector: Vector) -> Vector:
        """Return a direction as the move leaves it: turned, not shifted."""
        x, y = vector
        return (self.cosine * x - self.sine * y, self.sine * x + self.cosine * y)

    def then(self, later: "Motion") -> "Motion":
        """Return this move followed by `later`, as one move."""
        return Motion(
            later.cosine * self.cosine - later.sine * self.sine,
            later.sine * self.cosine + later.cosine * self.sine,
            later(self.shift),
        )

    def inverse(self) -> "Motion":
        """Return the move that undoes this one."""
        x, y = self.shift
        c, s = self.cosine, self.sine
        return Motion(c, -s, (-c * x - s * y, s * x - c * y))


STILL = Motion(1.0, 0.0, (0.0, 0.0))
