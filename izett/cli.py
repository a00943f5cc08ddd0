"""The command line: the same core for scripts, tests and batch work. Errors go to stderr in one line, exit status 2."""

import argparse
import json
import shlex
import sys
from collections.abc import Sequence
from datetime import date
from pathlib import Path

from pydantic import ValidationError

from izett.catalogue import catalogue
from izett.checking.check import Garment, Result, Verdict, run
from izett.commands import cutting, draping, fitting, running, tracing
from izett.commands.papers import add_paper
from izett.drafting.ease import FITS, Cloth, Kind
from izett.drafting.method import DIRECT, Method
from izett.errors import FormatNotWritten, IzettError, UnknownName, ValueOutOfRange
from izett.files.measure_sheet_pdf import write_measure_sheet
from izett.files.measures_csv import write_csv
from izett.files.measures_json import write_measures
from izett.files.pattern_files import write_sheets
from izett.files.pattern_json import evaluated_document, read_pattern, write_pattern
from izett.files.reading import content_of, text_of
from izett.files.recipe_json import RecipeClothDoc, RecipeDoc, StepDoc, read_recipe
from izett.files.scan_json import write_scan
from izett.files.sheet_file import read_sheet_file
from izett.files.worksheet_pdf import by_group, write_worksheet
from izett.finishing.allowances import Allowances, purposes
from izett.measuring.doubts import doubts_about
from izett.measuring.estimates import missing_measures
from izett.measuring.measure import measure, measures, read_measure, symbol_of
from izett.measuring.scanner import scan
from izett.measuring.sheet import Sheet
from izett.measuring.size_chart import standard_charts
from izett.pattern.facts import Half
from izett.recipe.evaluation import Evaluation
from izett.recipe.evaluator import Evaluator
from izett.recipe.refusals import IDLE
from izett.rules.sheet import combined
from izett.units import Unit, UnreadableLength, read_length, show_length
from izett.wording import plain


def main(arguments: Sequence[str] | None = None) -> int:
    """Run a command; return the exit status: 0, 1 when a check fails, 2 for an error."""
    options = _parser().parse_args(arguments)
    try:
        return int(options.run(options))
    except IzettError as error:
        print(f"izett: {error}", file=sys.stderr)
    except OSError as error:
        print(f"izett: {error.filename}: {error.strerror}", file=sys.stderr)
    return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m izett", description="Draft blocks from body measures.")
    commands = parser.add_subparsers(required=True, metavar="command")
    draft = commands.add_parser("draft", help="draft a block and write it")
    _add_inputs(draft)
    draft.add_argument("--recipe", type=Path, help="an izett-recipe file: block, overrides and steps")
    draft.add_argument(
        "--out", type=Path, required=True, help="FILE.json, .svg, .dxf, .pdf, .plt (HPGL) or .csv (seams)"
    )
    add_paper(draft)
    draft.add_argument("--purpose", help=f"seam allowances: {', '.join(purposes())}; muslin where none is given")
    draft.add_argument(
        "--step",
        action="append",
        default=[],
        metavar="'KIND NAME=VALUE …'",
        help="a further step, as in 'change_side underarm=1cm section=fit half=left'; values may be JSON",
    )
    draft.add_argument(
        "--half", choices=[half.value for half in Half], help="the half that the steps given by --step are for"
    )
    draft.set_defaults(run=_draft)
    check = commands.add_parser("check", help="check a pattern file; exit 1 when a check fails")
    check.add_argument("file", type=Path)
    check.set_defaults(run=_check)
    worksheet = commands.add_parser("worksheet", help="show every sum of a draft")
    _add_inputs(worksheet)
    worksheet.add_argument("--out", type=Path, help="FILE.pdf, to print it")
    worksheet.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    worksheet.set_defaults(run=_worksheet)
    sheet = commands.add_parser(
        "measures", help="read a sheet of measures: doubts and estimates, or write it elsewhere"
    )
    sheet.add_argument("file", type=Path, help="izett-measures, izett-scan or CSV")
    sheet.add_argument("--unit", choices=[u.value for u in Unit], help="what numbers without a unit are in")
    sheet.add_argument("--out", type=Path, help="FILE.json, .csv or .pdf")
    sheet.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    sheet.set_defaults(run=_measures)
    scanned = commands.add_parser("scan", help="let the simulated scanner scan a body")
    scanned.add_argument("--measures", type=Path, required=True, help="the body: izett-measures or CSV")
    scanned.add_argument("--unit", choices=[u.value for u in Unit], help="what numbers without a unit are in")
    scanned.add_argument("--seed", type=int, default=1, help="the same seed gives the same noise")
    scanned.add_argument("--out", type=Path, required=True, help="FILE.json")
    scanned.set_defaults(run=_scan)
    fitting.add(commands, _add_inputs, _asked, _written)
    cutting.add(commands)
    running.add(commands, _add_draft, _of_size)
    for module in (draping, tracing):
        module.add(commands, lambda recipe: Evaluator(catalogue()).evaluate(recipe), _written)
    for name, listed in (("steps", _steps), ("blocks", _blocks), ("checks", _checks), ("sizes", _sizes)):
        command = commands.add_parser(name, help=f"list the {name} that exist")
        command.set_defaults(run=listed)
    return parser


def _add_inputs(parser: argparse.ArgumentParser) -> None:
    """Add what says the body, and how it is drafted for."""
    body = parser.add_mutually_exclusive_group(required=True)
    body.add_argument("--measures", type=Path, help="an izett-measures file, a scan, or CSV")
    body.add_argument(
        "--size", metavar="CHART:SIZE[@HEIGHT]", help="a standard size, for example en_13402_3_women:92@168"
    )
    parser.add_argument("--unit", choices=[u.value for u in Unit], help="what numbers without a unit are in")
    _add_draft(parser)


def _add_draft(parser: argparse.ArgumentParser) -> None:
    """Add what says how it is drafted."""
    parser.add_argument("--block", action="append", help="a block to draft; several are drafted together")
    parser.add_argument("--method", default=None, help="direct (default) or proportional")
    parser.add_argument(
        "--school",
        action="append",
        default=[],
        metavar="QUESTION=WAY",
        help="where makers differ, for example shoulder=dart",
    )
    parser.add_argument("--fit", help=f"{', '.join(FITS)}; fitted where none is given")
    parser.add_argument("--cloth", metavar="KIND[:STRETCH]", help="woven, stretch:15, knit:50; stretch in %%")
    parser.add_argument(
        "--apart", action="append", default=[], metavar="MEASURE", help="draft the halves apart by its left and right"
    )
    parser.add_argument("--set", action="append", default=[], metavar="ALLOWANCE=VALUE", help="units are understood")


def _draft(options: argparse.Namespace) -> int:
    body, evaluation = _evaluated(options)
    _written(options, body, evaluation)
    return 0


def _written(options: argparse.Namespace, body: dict[str, float], evaluation: Evaluation) -> None:
    """Write a garment to the file that was asked for, and tell what was skipped."""
    suffix = options.out.suffix.lower()
    if suffix == ".json":
        document = evaluated_document(evaluation, measures=body)
        options.out.write_text(write_pattern(document), encoding="utf-8")
    else:
        write_sheets(evaluation.pattern, options.out, paper=options.paper, numbered=getattr(options, "numbered", False))
    for notice in evaluation.notices:
        print(f"note: {plain(notice.message)}", file=sys.stderr)
    for stage in evaluation.stages:
        if stage.failure is not None:
            print(f"skipped: {plain(stage.words)}: {stage.failure}", file=sys.stderr)
        elif stage.idle:
            print(f"skipped: {plain(stage.words)}: {IDLE}", file=sys.stderr)


def _measures(options: argparse.Namespace) -> int:
    sheet = _sheet(options.file, options.unit)
    if options.out is None:
        _tell_about(sheet)
        return 0
    suffix = options.out.suffix.lower()
    if suffix == ".json":
        options.out.write_text(write_measures(sheet), encoding="utf-8")
    elif suffix == ".csv":
        options.out.write_text(write_csv(sheet), encoding="utf-8")
    elif suffix == ".pdf":
        options.out.write_bytes(write_measure_sheet(sheet, paper=options.paper))
    else:
        raise FormatNotWritten(
            f"Files ending in “{suffix}” cannot be written.", fix="Use .json, .csv or .pdf.", where=(str(options.out),)
        )
    return 0


def _sheet(path: Path, unit: str | None) -> Sheet:
    read = read_sheet_file(content_of(path), unit=Unit(unit) if unit else None)
    for told in read.left_out:
        print(f"left out: {told}", file=sys.stderr)
    return read.sheet


def _tell_about(sheet: Sheet) -> None:
    body = sheet.cm
    doubts = doubts_about(body)
    for found in doubts.contradictions:
        print(f"{found.message}. {plain(found.told)} ({', '.join(found.symbols)})")
    for retake in doubts.retake:
        would = show_length(retake.would_fit, unit=Unit.CM)
        print(f"take again: {measures()[retake.symbol].name}; about {would} would go with the rest")
    for estimate in missing_measures(body).values():
        name = measures()[estimate.symbol].name
        print(f"  {name:<36}{estimate.cm:>8.1f} ± {estimate.spread:.1f} cm  {plain(estimate.worked)}")


def _scan(options: argparse.Namespace) -> int:
    body = _sheet(options.measures, options.unit).cm
    options.out.write_text(write_scan(scan(body, seed=options.seed), taken_on=date.today()), encoding="utf-8")
    return 0


def _sizes(_: argparse.Namespace) -> int:
    for chart in standard_charts().values():
        print(f"{chart.key:<22}{chart.title} ({chart.source}): {', '.join(chart.sizes)}")
    return 0


def _body(options: argparse.Namespace) -> tuple[dict[str, float], dict[str, tuple[float, float]]]:
    """Return the body in cm by symbol, and left and right of what was taken apart."""
    if options.measures is not None:
        sheet = _sheet(options.measures, options.unit)
        return sheet.cm, sheet.sides
    return _body_of(options.size), {}


def _body_of(text: str) -> dict[str, float]:
    """Return the body of a standard size, CHART:SIZE[@HEIGHT]."""
    name, _, size = text.partition(":")
    size, _, height = size.partition("@")
    chart = standard_charts().get(name)
    if chart is None:
        raise UnknownName(
            f"There is no size chart “{name}”.",
            fix=f"Available: {', '.join(standard_charts())}.",
            where=(name,),
        )
    return chart.body(size, height=read_measure("height", height, unit=Unit.CM).cm if height else None)


def _of_size(options: argparse.Namespace, size: str) -> tuple[dict[str, float], Evaluation]:
    body = _body_of(size)
    return body, Evaluator(catalogue()).evaluate(_recipe(options).recipe(body, {}))


def _evaluated(options: argparse.Namespace) -> tuple[dict[str, float], Evaluation]:
    body, sides = _body(options)
    return body, Evaluator(catalogue()).evaluate(_recipe(options).recipe(body, sides))


def _asked(options: argparse.Namespace) -> fitting.Asked:
    body, sides = _body(options)
    return fitting.Asked(_recipe(options), body, sides)


def _recipe(options: argparse.Namespace) -> RecipeDoc:
    """Return the recipe of a file, with what the command line says besides."""
    path = getattr(options, "recipe", None)
    recipe = read_recipe(text_of(path)) if path else RecipeDoc()
    blocks = options.block or [key for key in (recipe.block, *recipe.also) if key]
    methods = catalogue().in_order(blocks)
    changes: dict[str, object] = {
        "block": blocks[0] if blocks else "",
        "also": blocks[1:],
        "school": options.method or recipe.school or DIRECT,
        "schools": {**recipe.schools, **dict(_way(text) for text in options.school)},
        "overrides": {**recipe.overrides, **dict(_setting(methods, text) for text in options.set)},
    }
    if options.fit:
        changes["fit"] = options.fit
    if options.cloth:
        changes["cloth"] = _cloth(options.cloth)
    if options.apart:
        changes["apart"] = [symbol_of(measure(symbol).symbol) for symbol in options.apart]
    changes["steps"] = [*recipe.steps, *_given_steps(options)]
    return recipe.model_copy(update=changes)


def _given_steps(options: argparse.Namespace) -> list[StepDoc]:
    """Return the steps that the command line gives, the seam allowances among them."""
    texts = getattr(options, "step", [])
    steps = [_step(f"given{i}", text, getattr(options, "half", None)) for i, text in enumerate(texts, 1)]
    purpose = getattr(options, "purpose", None)
    if purpose is not None:
        Allowances(purpose)  # raises UnknownName with the list of what there is
        steps.append(StepDoc(uid="purpose", kind="set_allowances", params={"purpose": purpose}))
    return steps


def _step(uid: str, text: str, half: str | None) -> StepDoc:
    """Return a step of the form 'change_side underarm=1cm half=left'.

    Raises:
        UnknownName, ValueOutOfRange: there is no such step, or a part of it cannot be read.
    """
    kind, *given = shlex.split(text)
    operation = catalogue().operations.get(kind)
    if operation is None:
        raise UnknownName(f"There is no step “{kind}”.", fix="“izett steps” lists them.", where=(kind,))
    parts: dict[str, str] = dict(one.partition("=")[::2] for one in given)
    if half is not None:
        parts.setdefault("half", half)
    own = {name: parts.pop(name) for name in ("half", "section", "why") if name in parts}
    try:
        return StepDoc(
            uid=uid,
            kind=kind,
            version=operation.version,
            params={name: _typed(value) for name, value in parts.items()},
            **own,
        )
    except ValidationError as error:
        raise ValueOutOfRange(
            f"“{text}”: {error.errors()[0]['msg'].lower()}.", fix="Set half to both, left or right.", where=(kind,)
        ) from error


def _typed(value: str) -> object:
    """Return a step's parameter as it is typed: a length with its unit, JSON, or else text."""
    try:
        return json.loads(value)
    except ValueError:
        pass
    try:
        return read_length(value, unit=Unit.CM).cm
    except UnreadableLength:
        return value


def _way(text: str) -> tuple[str, str]:
    question, _, way = text.partition("=")
    return question, way


def _cloth(text: str) -> RecipeClothDoc:
    kind, _, stretch = text.partition(":")
    try:
        cloth = Cloth(kind, float(stretch.strip().removesuffix("%") or 0))
    except ValueError as error:
        raise ValueOutOfRange(
            f"“{text}”: the stretch is not a number.", fix="For example: knit:50.", where=("cloth",)
        ) from error
    return RecipeClothDoc(kind=Kind(cloth.kind), stretch=cloth.stretch)


def _setting(methods: Sequence[Method], text: str) -> tuple[str, float]:
    symbol, _, value = text.partition("=")
    sheet = combined([method.sheet for method in methods])
    known = sheet.rules.get(symbol) or sheet.found.get(symbol) or sheet.allowance(symbol)
    try:
        if known.unit == "cm":
            return symbol, read_length(value, unit=Unit.CM).cm
        return symbol, float(value)
    except (UnreadableLength, ValueError) as error:
        example = sheet.allowances[symbol].default if symbol in sheet.allowances else 10
        raise ValueOutOfRange(
            f"{symbol}={value}: {error}.", fix=f"For example: {symbol}={example:g}.", where=(symbol,)
        ) from error


def _check(options: argparse.Namespace) -> int:
    pattern, document = read_pattern(text_of(options.file))
    garment = Garment(pattern, document.measures)
    results = [result for check in catalogue().checks.values() for result in run(check, garment)]
    for result in results:
        print(_row(result))
    return 1 if any(result.finding.verdict is Verdict.FAILS for result in results) else 0


def _row(result: Result) -> str:
    finding = result.finding
    return (
        f"{finding.verdict.value:<15}{result.check:<18}{finding.amount:>9.3f} {finding.unit:<3} {plain(result.words)}"
    )


def _worksheet(options: argparse.Namespace) -> int:
    _, evaluation = _evaluated(options)
    if options.out is not None:
        if options.out.suffix.lower() != ".pdf":
            raise FormatNotWritten(
                f"A worksheet cannot be written as “{options.out.suffix}”.",
                fix="Use .pdf.",
                where=(str(options.out),),
            )
        unit = Unit(options.unit) if options.unit else Unit.CM
        parts = by_group(evaluation.draft.lines)
        options.out.write_bytes(write_worksheet(parts, title="Worksheet", paper=options.paper, unit=unit))
        return 0
    group = ""
    for line in evaluation.draft.lines:
        if line.group != group:
            group = line.group
            print(f"\n{group}")
        how = plain(line.worked) or (
            f"found so that {line.condition}; off by {line.residual:.3f}" if line.condition else ""
        )
        print(f"  {line.label:<48}{line.value:>9.2f} {line.unit:<3} {line.state.value:<11}{how}")
    for notice in evaluation.notices:
        print(f"\nnote: {plain(notice.message)}")
    return 0


def _steps(_: argparse.Namespace) -> int:
    for operation in catalogue().operations.values():
        print(f"{operation.key:<18}{operation.title}: {', '.join(operation.params.model_fields)}")
    return 0


def _blocks(_: argparse.Namespace) -> int:
    for method in catalogue().methods.values():
        stands = f" on a {' or '.join(method.stands_on)}" if method.stands_on else ""
        schools = "; ".join(f"{school.key}={'|'.join(school.ways)}" for school in method.sheet.schools.values())
        print(f"{method.key:<18}{method.title}{stands}: {', '.join(method.sheet.allowances)}; {schools}")
    return 0


def _checks(_: argparse.Namespace) -> int:
    for check in catalogue().checks.values():
        print(f"{check.key:<18}{check.claim}: {', '.join(check.params.model_fields)}")
    return 0
