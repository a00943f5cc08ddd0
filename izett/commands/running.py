"""`run`: one recipe for a run of sizes, its pieces nested on paper or each size as a pattern of its own."""

import argparse
import sys
from collections.abc import Callable, Mapping
from pathlib import Path

from izett.errors import FormatNotWritten
from izett.files.pattern_doc import PatternDoc
from izett.files.pattern_json import evaluated_document
from izett.files.pdf import write_pdf
from izett.files.run_json import write_run
from izett.files.stacks import nested, refuse_run
from izett.finishing.allowances import refuse_missing
from izett.finishing.sheet import SheetPiece, sheet_pieces
from izett.recipe.evaluation import Evaluation
from izett.wording import plain

#: Reads the recipe that the options ask for; works it out for a size by name.
Work = Callable[[argparse.Namespace, str], tuple[Mapping[str, float], Evaluation]]


def add(
    commands: "argparse._SubParsersAction[argparse.ArgumentParser]",
    inputs: Callable[[argparse.ArgumentParser], None],
    work: Work,
) -> None:
    """Add the command."""
    run = commands.add_parser("run", help="work a recipe out for a run of sizes, nested")
    inputs(run)
    run.add_argument("--recipe", type=Path, help="an izett-recipe file")
    run.add_argument("--sizes", required=True, metavar="CHART:SIZE,SIZE…[@HEIGHT]", help="en_13402_3_women:84,88,92")
    run.add_argument("--out", type=Path, required=True, help="FILE.pdf or .json")
    run.add_argument("--paper", default="a0", help="a4, letter, a0 or roll, for .pdf")
    run.set_defaults(run=lambda options: _run(options, work))


def _run(options: argparse.Namespace, work: Work) -> int:
    suffix = options.out.suffix.lower()
    if suffix not in (".pdf", ".json"):
        raise FormatNotWritten(
            f"A run of sizes cannot be written as “{suffix}”.", fix="Use .pdf or .json.", where=(str(options.out),)
        )
    chart, _, listed = options.sizes.partition(":")
    sizes, _, height = listed.partition("@")
    names = list(dict.fromkeys(size.strip() for size in sizes.split(",") if size.strip()))
    refuse_run(names)
    sheets: dict[str, list[SheetPiece]] = {}
    documents: dict[str, PatternDoc] = {}
    for name in names:
        body, evaluation = work(options, f"{chart}:{name}" + (f"@{height}" if height else ""))
        refuse_missing(evaluation.pattern)
        sheets[name] = sheet_pieces(evaluation.pattern)
        documents[name] = evaluated_document(evaluation, measures=body)
        for stage in evaluation.stages:
            if stage.failure is not None:
                print(f"size {name}, skipped: {plain(stage.words)}: {stage.failure}", file=sys.stderr)
    if suffix == ".json":
        options.out.write_text(write_run(documents), encoding="utf-8")
    else:
        options.out.write_bytes(write_pdf(nested(sheets), paper=options.paper, title=f"Sizes {', '.join(names)}"))
    return 0
