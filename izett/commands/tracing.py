"""`trace` and `convert`: from a picture or a drawing to pieces."""

import argparse
from pathlib import Path

from izett.commands.draping import Evaluate, Write
from izett.commands.papers import add_paper
from izett.draping.given import drawn
from izett.draping.panel import Given, Source
from izett.errors import FormatNotWritten, UnreadableFile
from izett.files.pattern_files import write_sheets
from izett.files.pattern_json import read_pattern, write_pattern
from izett.files.reading import content_of, text_of
from izett.files.shapes import DrawnIn, read_shapes
from izett.files.trace_sheets_pdf import write_trace_sheets_pdf
from izett.progress import untold
from izett.recipe.model import Recipe
from izett.units import Unit, UnreadableLength, read_length

#: Bytes of a photo that is traced at most: a camera's largest.
LARGEST_PICTURE = 25 * 2**20


def add(commands: "argparse._SubParsersAction[argparse.ArgumentParser]", evaluate: Evaluate, write: Write) -> None:
    """Add the commands of tracing."""
    trace = commands.add_parser("trace", help="read a piece's outline from a photo, a scan or a diagram")
    trace.add_argument("file", type=Path, help="JPEG or PNG")
    trace.add_argument(
        "--by", choices=("sheets", "points", "rectangle", "grid"), default="sheets", help="what tells the scale"
    )
    trace.add_argument("--tap", metavar="X,Y", help="a pixel on the piece; the middle where none is given")
    trace.add_argument("--sheet-paper", default="a4", help="what the sheets were printed on: a4 or letter")
    trace.add_argument("--bar", metavar="LENGTH", default="20cm", help="what a ruler reads on a sheet's bar")
    trace.add_argument("--thick", metavar="LENGTH", default="0", help="how thick the piece is, where over 1 mm")
    trace.add_argument(
        "--known",
        metavar="X,Y:X,Y=LENGTH",
        help="two points and their distance; for a rectangle its four corners and WIDTHxHEIGHT; for a grid a place in it and a square",
    )
    trace.add_argument("--title", default="Traced piece", help="what the piece is called")
    trace.add_argument("--out", type=Path, required=True, help="FILE.json, .svg or .pdf")
    trace.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    trace.set_defaults(run=lambda options: _trace(options, evaluate, write))
    sheets = commands.add_parser("sheets", help="write the sheets that tell a photo its scale")
    sheets.add_argument("--out", type=Path, required=True, help="FILE.pdf")
    sheets.add_argument("--paper", default="a4", help="a4 or letter")
    sheets.set_defaults(run=_sheets)
    convert = commands.add_parser("convert", help="read pieces from a file and write them as another")
    convert.add_argument("file", type=Path, help="FILE.json (izett-pattern), .svg or .dxf")
    convert.add_argument("out", type=Path, help="FILE.json, .svg, .dxf, .pdf, .plt (HPGL) or .csv (seams)")
    convert.add_argument(
        "--unit", choices=[unit.value for unit in DrawnIn], help="what its numbers are in, where it does not say"
    )
    add_paper(convert)
    convert.set_defaults(run=lambda options: _convert(options, evaluate, write))


def _sheets(options: argparse.Namespace) -> int:
    options.out.write_bytes(write_trace_sheets_pdf(paper=options.paper))
    return 0


def _trace(options: argparse.Namespace, evaluate: Evaluate, write: Write) -> int:
    # Only who traces waits for the library that sees.
    from izett.tracing.known import Known, look_at, picture_from  # noqa: PLC0415
    from izett.tracing.trace import panel_of, trace_of  # noqa: PLC0415

    picture = picture_from(content_of(options.file, most=LARGEST_PICTURE))
    high, wide = picture.shape[:2]
    tap = _spot(options.tap, "--tap") if options.tap else (wide / 2, high / 2)
    spots, lengths = _known(options)
    bar, thick = _length(options.bar, "--bar"), _length(options.thick, "--thick")
    look = look_at(picture, tap, Known(options.by, options.sheet_paper, bar, spots, lengths, thick), progress=untold)
    found = trace_of(look)
    if look.calibration is not None:
        checked = look.calibration
        print(
            f"calibration checked to {checked.off * 10:.1f} mm and {checked.share * 100:.2f} %, camera {checked.tilt:.0f}° off square"
        )
    panel = panel_of(found, options.title)
    print(
        f"{options.title}: {len(found.lines)} lines, {len(found.notches)} notches, {len(found.darts)} darts, "
        f"{len(found.ghosts)} pencil marks, the edge at most {max(line.off for line in found.lines) * 10:.1f} mm off its lines"
    )
    given = Given(source=Source.TRACE, panels=(panel,))
    write(options, {}, evaluate(Recipe("", {}, given=given)))
    return 0 if all(one.piece is not None for one in drawn(given).panels) else 1


def _known(options: argparse.Namespace) -> tuple[tuple[tuple[float, float], ...], tuple[float, ...]]:
    """Return the places and lengths that tell a scale."""
    if options.by == "sheets":
        return (), ()
    if not options.known or "=" not in options.known:
        raise UnreadableFile(f"--by {options.by} needs --known.", fix="For example: --known 100,80:900,80=25cm.")
    places, _, size = options.known.partition("=")
    spots = tuple(_spot(part, "--known") for part in places.split(":"))
    lengths = tuple(_length(part, "--known") for part in size.split("x"))
    return spots, lengths


def _spot(text: str, option: str) -> tuple[float, float]:
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError as error:
        raise UnreadableFile(f"{option}: “{text}” is no place.", fix="Give two numbers of pixels: 640,400.") from error
    return (x, y)


def _length(text: str, option: str) -> float:
    try:
        return read_length(text, unit=Unit.CM).cm
    except UnreadableLength as error:
        raise UnreadableFile(f"{option}: {error}.", fix="For example: 25cm or 10in.") from error


def _convert(options: argparse.Namespace, evaluate: Evaluate, write: Write) -> int:
    kind = options.file.suffix.lower().lstrip(".")
    if kind == "json":
        # A pattern of Izett's is written as it is: nothing of it is lost on the way.
        pattern, document = read_pattern(text_of(options.file))
        if options.out.suffix.lower() == ".json":
            options.out.write_text(write_pattern(document), encoding="utf-8")
        else:
            write_sheets(pattern, options.out, paper=options.paper, numbered=options.numbered)
        print(f"{len(pattern.pieces)} pieces")
        return 0
    if kind in ("svg", "dxf"):
        given = read_shapes(content_of(options.file), kind, unit=DrawnIn(options.unit) if options.unit else None)
    else:
        raise FormatNotWritten(
            f"Files ending in “.{kind}” cannot be read.", fix="Use .json, .svg or .dxf.", where=(str(options.file),)
        )
    found = drawn(given)
    for one in found.panels:
        print(f"{one.panel.called}: {len(one.panel.lines)} lines" + ("" if one.piece is not None else ", not drawn"))
    write(options, {}, evaluate(Recipe("", {}, given=given)))
    return 0 if all(one.piece is not None for one in found.panels) else 1
