"""`lay`: from a pattern and a cloth to a plan of how the pieces lie on it."""

import argparse
import sys
from collections.abc import Sequence
from pathlib import Path

from izett.cutting.cloth import USES, Cloth, Fold, Use
from izett.cutting.lay.cutouts import Wanted
from izett.cutting.lay.saving import savings
from izett.cutting.lay.search import USUAL, Effort, best_plan
from izett.cutting.lay.thumb import rule_of_thumb
from izett.cutting.uses import cut_from, use_of
from izett.errors import FormatNotWritten
from izett.files.cloth_json import read_cloth
from izett.files.lay_json import write_lay
from izett.files.lay_pdf import write_lay_pdf
from izett.files.lay_picture import headline, write_lay_svg
from izett.files.pattern_json import read_pattern
from izett.files.reading import text_of
from izett.finishing.sheet import SheetPiece, sheet_pieces
from izett.units import Unit
from izett.wording import cm, plain


def add(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """Add the commands of cutting."""
    lay = commands.add_parser("lay", help="lay pieces on a cloth: how they lie, and how much of it they need")
    lay.add_argument("file", type=Path, nargs="+", help="izett-pattern; several are sizes of one run")
    lay.add_argument("--cloth", type=Path, required=True, help="izett-cloth")
    lay.add_argument("--unit", choices=[u.value for u in Unit], help="what a cloth's numbers without a unit are in")
    lay.add_argument("--fold", choices=[fold.value for fold in Fold], help="how it is folded, if not as its file says")
    lay.add_argument("--times", type=int, default=1, help="how many garments of each")
    lay.add_argument("--seed", type=int, default=1, help="the same seed gives the same plan")
    lay.add_argument("--effort", type=float, default=1.0, help="how long is looked for a better plan; 1 is usual")
    lay.add_argument("--savings", action="store_true", help="say what would save cloth")
    lay.add_argument("--out", type=Path, required=True, help="FILE.json, .svg or .pdf")
    lay.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    lay.set_defaults(run=_lay)


def _lay(options: argparse.Namespace) -> int:
    cloth = read_cloth(text_of(options.cloth), unit=Unit(options.unit) if options.unit else None)
    unit = Unit(options.unit) if options.unit else Unit.CM
    suffix = options.out.suffix.lower()
    if suffix not in (".json", ".svg", ".pdf"):
        raise FormatNotWritten(
            f"A lay plan cannot be written as “{suffix}”.", fix="Use .json, .svg or .pdf.", where=(str(options.out),)
        )
    wanted = _wanted(options.file, cloth, options.times)
    effort = Effort(round(USUAL.rounds * options.effort), USUAL.looks * options.effort)
    fold = Fold(options.fold) if options.fold else None
    plan = best_plan(wanted, cloth, fold=fold, seed=options.seed, effort=effort)
    found = savings(wanted, cloth, plan, seed=options.seed) if options.savings or suffix == ".pdf" else []
    told = [f"{saving.words} Saves {cm(saving.saves)}." for saving in found]
    if suffix == ".json":
        options.out.write_text(write_lay(plan, unit=unit), encoding="utf-8")
    elif suffix == ".svg":
        options.out.write_text(write_lay_svg(plan, unit=unit), encoding="utf-8")
    else:
        options.out.write_bytes(write_lay_pdf(plan, wanted, paper=options.paper, unit=unit, notes=told))
    print(headline(plan, unit))
    print(plain(rule_of_thumb(wanted, cloth, fold).words, unit))
    if plan.decides is not None:
        print(f"{plan.decides.cutout.title} decides the length.")
    if cloth.length is not None and plan.bought > cloth.length:
        print(
            f"There is {plain(cm(cloth.length), unit)} at hand: {plain(cm(plan.bought - cloth.length), unit)} too little."
        )
    for words in told:
        print(plain(words, unit))
    return 0


def _wanted(paths: Sequence[Path], cloth: Cloth, times: int) -> list[Wanted]:
    """Return what is cut of a cloth, of one pattern or of several as sizes; what is cut from others is told."""
    wanted: list[Wanted] = []
    for path in paths:
        pattern, _ = read_pattern(text_of(path))
        sheets = sheet_pieces(pattern)
        size = path.stem if len(paths) > 1 else ""
        wanted += [Wanted(sheet, times, size) for sheet in cut_from(sheets, cloth.use)]
        _tell_left_out(sheets, cloth.use)
    return wanted


def _tell_left_out(sheets: Sequence[SheetPiece], use: Use) -> None:
    own = Use.OUTER if use is Use.MUSLIN else use
    for other in Use:
        left = [sheet.piece.title for sheet in sheets if use_of(sheet) is other and other is not own]
        if left:
            print(f"left out, cut from the {USES[other]}: {', '.join(left)}", file=sys.stderr)
