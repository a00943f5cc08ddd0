"""`tear` and `marks`: from the form's measures to the tear list, from typed marks to pieces."""

import argparse
import sys
from collections.abc import Callable
from pathlib import Path

from izett.draping.given import drawn
from izett.draping.tearing import tear_list
from izett.errors import FormatNotWritten, UnreadableFile
from izett.files.marks_csv import read_marks
from izett.files.reading import text_of
from izett.files.tear_file import read_form, write_tear_json, write_tear_pdf
from izett.recipe.evaluation import Evaluation
from izett.recipe.model import Recipe
from izett.units import Unit, UnreadableLength, read_length
from izett.wording import plain

#: Works a recipe out, and writes a garment to the file that was asked for.
Evaluate = Callable[[Recipe], Evaluation]
Write = Callable[[argparse.Namespace, dict[str, float], Evaluation], None]


def add(commands: "argparse._SubParsersAction[argparse.ArgumentParser]", evaluate: Evaluate, write: Write) -> None:
    """Add the commands of draping."""
    tear = commands.add_parser("tear", help="turn lengths and widths of the form into the tear list of its muslin")
    tear.add_argument("file", type=Path, help="CSV: panel,kind,length,width,train")
    tear.add_argument(
        "--unit", choices=[u.value for u in Unit], default="cm", help="what numbers without a unit are in"
    )
    tear.add_argument("--muslin", metavar="WIDTH", help="from selvedge to selvedge; units are understood")
    tear.add_argument("--out", type=Path, required=True, help="FILE.pdf or .json")
    tear.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    tear.set_defaults(run=_tear)
    marks = commands.add_parser("marks", help="true typed marks into pieces")
    marks.add_argument("file", type=Path, help="CSV: panel,kind,across,along,line,name")
    marks.add_argument(
        "--unit", choices=[u.value for u in Unit], default="cm", help="what numbers without a unit are in"
    )
    marks.add_argument("--out", type=Path, required=True, help="FILE.json, .svg or .pdf")
    marks.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    marks.set_defaults(run=lambda options: _marks(options, evaluate, write))


def _tear(options: argparse.Namespace) -> int:
    read = read_form(text_of(options.file), unit=Unit(options.unit))
    muslin = read.muslin
    if options.muslin:
        try:
            muslin = read_length(options.muslin, unit=Unit(options.unit)).cm
        except UnreadableLength as error:
            raise UnreadableFile(f"--muslin: {error}.", fix="For example: --muslin 60in.") from error
    found = tear_list(read.panels, muslin=muslin)
    suffix = options.out.suffix.lower()
    if suffix == ".json":
        options.out.write_text(write_tear_json(found), encoding="utf-8")
    elif suffix == ".pdf":
        options.out.write_bytes(write_tear_pdf(found, paper=options.paper, unit=Unit(options.unit)))
    else:
        raise FormatNotWritten(
            f"Files ending in “{suffix}” cannot be written.", fix="Use .json or .pdf.", where=(str(options.out),)
        )
    return 0


def _marks(options: argparse.Namespace, evaluate: Evaluate, write: Write) -> int:
    given = read_marks(text_of(options.file), unit=Unit(options.unit))
    found = drawn(given)
    for panel in found.panels:
        if panel.piece is not None:
            off = max(panel.off.values(), default=0.0)
            print(
                f"{panel.panel.called}: {len(panel.panel.marks)} marks, {len(panel.piece.edges)} lines, "
                f"{panel.cubics} cubics, the farthest dot {off * 10:.1f} mm off"
            )
    for one in found.seams:
        first, second = one.before
        state = "trued" if one.trued else "left as marked"
        print(f"{' + '.join(one.seam.words)}: {first:.2f} and {second:.2f} cm as marked, {state}")
    write(options, {}, evaluate(Recipe("", {}, given=given)))
    for query in found.queries:
        if query.stops:
            print(f"not drawn: {plain(query.words)} {plain(query.fix)}", file=sys.stderr)
    return 1 if any(panel.piece is None for panel in found.panels) else 0
