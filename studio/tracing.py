"""Tracing in the worker: from a picture that was sent to a panel that is proposed, with the picture to lay under it."""

from collections.abc import Sequence
from hashlib import sha256
from typing import TYPE_CHECKING
from uuid import UUID, uuid5

from izett.draping.outlines import panel_from_piece
from izett.draping.panel import Given, Source
from izett.errors import UnreadableFile
from izett.files.pattern_json import read_pattern
from izett.files.shapes import read_shapes
from izett.geometry.point import Point
from izett.progress import Progress
from izett.wording import cm
from studio.storage import incoming
from studio.trace_schemas import (
    GhostOut,
    Lies,
    LinePicked,
    ShapesIn,
    TakenPlace,
    TapeMeasured,
    TracedOut,
    TraceIn,
    TraceQuestion,
)

if TYPE_CHECKING:
    from izett.tracing.look import Look
    from izett.tracing.mapping import Picture

#: Quality of the JPEG of a picture seen from straight above.
QUALITY = 82
#: Decimals of a pixel in which what was taken is told: so that it comes back as the same place.
FINE = 6
#: What of a question tells what a picture shows; the rest is what a person makes of that.
LOOKED_AT_BY = {"picture", "digest", "by", "paper", "bar", "spots", "lengths", "tap", "thick"}
#: What of a picture told by two points is always said.
SQUARE_ON = "Two points tell no tilt: a picture taken askew by 5° is off by 0.7 cm. Take a scan, or tell the scale by four corners."
FOUR_CORNERS = "Four clicked corners hold to about 0.2 cm over a cutting mat."
SMALL_DRAWING = "A line of half a millimetre in a small drawing is 2 to 5 mm wide at full size."


def question_of(data: TraceIn) -> TraceQuestion:
    """Return what a trace depends on.

    Raises:
        Refusal: the picture was not sent, or is not kept any more.
    """
    digest = sha256(incoming.read(data.picture)).hexdigest()
    return TraceQuestion(**data.model_dump(exclude={"uid"}), uid="question", digest=digest)


def traced(question: TraceQuestion, progress: Progress) -> TracedOut:
    """Trace a picture.

    Raises:
        PictureRefused: nothing can be measured in it, or no piece is found; its reason is told.
    """
    # The library that sees takes a while to load: only the worker waits for it.
    import cv2  # noqa: PLC0415
    import numpy as np  # noqa: PLC0415

    from izett.tracing.known import taped  # noqa: PLC0415
    from izett.tracing.trace import (  # noqa: PLC0415
        Kind,
        Taken,
        kept_picture,
        line_names,
        panel_of,
        panel_of_marks,
        placing,
        trace_of,
    )  # fmt: skip

    picture, look = _LAST.look(question, progress)
    taken = (
        None
        if question.taken is None
        else [Taken(Kind(one.kind), (one.at[0], one.at[1]), one.exact) for one in question.taken]
    )
    of_outline = question.of == "outline"
    trace = trace_of(look, taken, outline=of_outline)
    upright = question.upright if question.upright is not None and question.upright < len(trace.lines) else None
    panel = (panel_of if of_outline else panel_of_marks)(trace, question.title, upright=upright)
    place = placing(trace, upright)
    kept = kept_picture(picture, trace)
    name = uuid5(question.picture, question.model_dump_json())
    _, written = cv2.imencode(".jpg", kept.picture, [cv2.IMWRITE_JPEG_QUALITY, QUALITY])
    incoming.keep(name, written.tobytes())
    lies = Lies(
        panel=panel.name, left=kept.left, top=kept.top, px_per_cm=kept.px_per_cm,
        turn=place.turn, across=place.across, along=place.along,
    )  # fmt: skip

    def seen(spots: Sequence[Point], decimals: int = 1) -> list[list[float]]:
        """Return where spots of the table come to lie in the picture."""
        return np.round(look.mapping.pixels(np.array(spots).reshape(-1, 2) * (1, -1)), decimals).tolist()

    def as_taken(kind: str, spots: Sequence[Point]) -> list[TakenPlace]:
        return [TakenPlace.model_validate({"kind": kind, "at": at, "exact": True}) for at in seen(spots, FINE)]

    marks = trace.marks if trace.marks is not None else () if of_outline else trace.ghosts
    stands = [place for kind, spot in marks for place in as_taken(kind.value, [spot])]
    if of_outline:
        corners = [line.curve.start for line in trace.lines]
        stands = [*as_taken("corner", corners), *as_taken("notch", trace.notches), *stands]
    ghosts = []
    for kind, spot in trace.ghosts:
        across, along = place.moved(spot)
        ghosts.append(GhostOut(kind=kind, across=across, along=along, seen=seen([spot])[0]))
    lines = [
        LinePicked(
            name=line_name,
            length=line.curve.length,
            off=line.off,
            ragged=line.ragged,
            seen=seen(line.curve.flattened()),
        )
        for line_name, line in zip(line_names(trace), trace.lines, strict=True)
    ]
    known_to = look.calibration
    tape = None
    if question.tape is not None:
        read = taped(look.table, [(x, y) for x, y in question.tape.ends], question.tape.known)
        tape = TapeMeasured(known=read.known, measured=read.measured, agrees=read.agrees)
    return TracedOut(
        panel=panel,
        picture=name,
        lies=lies,
        width=kept.picture.shape[1],
        height=kept.picture.shape[0],
        lines=lines,
        notches=len(trace.notches),
        darts=len(trace.darts),
        taken=stands,
        ghosts=ghosts,
        tape=tape,
        contrast=look.contrast,
        px_per_cm=look.px_per_cm,
        checked=known_to.off if known_to else None,
        share=known_to.share if known_to else None,
        tilt=known_to.tilt if known_to else None,
        warnings=_warnings(question, lines, doubtful=bool(known_to and known_to.doubtful)),
    )


class _Last:
    """The picture that was looked at last: what a person takes or moves in it is then answered at once."""

    def __init__(self) -> None:
        self._of: str | None = None
        self._found: tuple[Picture, Look] | None = None

    def look(self, question: TraceQuestion, progress: Progress) -> tuple["Picture", "Look"]:
        """Return a picture's pixels and what it shows.

        Raises:
            PictureRefused: nothing can be measured in it, or no piece is found.
        """
        from izett.tracing.known import Known, look_at, picture_from  # noqa: PLC0415

        of = question.model_dump_json(include=LOOKED_AT_BY)
        if self._found is None or self._of != of:
            # Let go of first: two large pictures at once take twice the room.
            self._of, self._found = None, None
            picture = picture_from(incoming.read(question.picture))
            spots = tuple((spot[0], spot[1]) for spot in question.spots)
            known = Known(question.by, question.paper, question.bar, spots, tuple(question.lengths), question.thick)
            tap = (question.tap[0], question.tap[1])
            self._of, self._found = of, (picture, look_at(picture, tap, known, progress=progress))
        return self._found


_LAST = _Last()


def _warnings(question: TraceQuestion, lines: list[LinePicked], *, doubtful: bool) -> list[str]:
    """Return what the maker should know before taking it."""
    found = {"points": [SQUARE_ON], "rectangle": [FOUR_CORNERS], "grid": [SMALL_DRAWING]}.get(question.by, [])
    if doubtful:
        found = [*found, "The sheets do not quite agree: press them flat and take the photo again if it matters."]
    ragged = [line.name.replace("_", " ") for line in lines if line.ragged]
    if ragged:
        worst = max(line.off for line in lines)
        found = [
            *found,
            f"Ragged: {', '.join(ragged)}; the edge lies up to {cm(worst, 2)} off. Look at it over the picture.",
        ]
    return found


def shapes_of(data: ShapesIn, content: bytes) -> Given:
    """Return the pieces that a file draws.

    Raises:
        UnreadableFile, UnitNotSaid: it cannot be read, or does not say its unit.
    """
    if data.kind != "json":
        return read_shapes(content, data.kind, unit=data.unit)
    try:
        text = content.decode("utf-8")
    except UnicodeDecodeError as error:
        raise UnreadableFile("The file is no text.", fix="Choose an izett-pattern file.") from error
    pattern, _ = read_pattern(text)
    return Given(source=Source.FILE, panels=tuple(panel_from_piece(piece) for piece in pattern))


def named(uid: UUID) -> str:
    """Return the place that work on a picture is for: a new question about it stops an older one."""
    return f"picture {uid}"
