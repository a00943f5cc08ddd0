"""`findings` and `fit`: what a fitting can find, and its findings worked into a garment."""

import argparse
import shlex
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path

from izett.catalogue import catalogue
from izett.commands.draping import Write
from izett.errors import UnreadableFile, ValueOutOfRange
from izett.files.marks_csv import read_marks
from izett.files.reading import text_of
from izett.files.recipe_json import RecipeDoc, StepDoc, write_recipe
from izett.fitting.finding import Counted, Taken, finding_kind, finding_kinds
from izett.fitting.marked import LaidMark, Marked
from izett.fitting.plan import Planned, plan, with_deeds
from izett.fitting.pointing import Pointed
from izett.fitting.working_out import Amending, Seen
from izett.pattern.facts import Half
from izett.recipe.evaluator import Evaluator
from izett.styling.operations.redraw_edge import MarkedAs
from izett.units import Unit, UnreadableLength, read_length
from izett.wording import plain


@dataclass(frozen=True)
class Asked:
    """The garment that was asked for: its recipe, the body, and what was measured left and right apart, cm by symbol."""

    document: RecipeDoc
    body: dict[str, float]
    sides: Mapping[str, tuple[float, float]]


def add(
    commands: "argparse._SubParsersAction[argparse.ArgumentParser]",
    inputs: Callable[[argparse.ArgumentParser], None],
    read: Callable[[argparse.Namespace], Asked],
    write: Write,
) -> None:
    """Add the commands of fitting."""
    found = commands.add_parser("findings", help="list what a fitting can find: its amounts, its remedies")
    found.add_argument("key", nargs="?", help="one finding, in full")
    found.set_defaults(run=_findings)
    fit = commands.add_parser("fit", help="work the findings of a fitting into a garment; exit 1 when one cannot be")
    inputs(fit)
    fit.add_argument("--recipe", type=Path, help="an izett-recipe file: block, overrides and steps")
    fit.add_argument(
        "--find",
        action="append",
        required=True,
        metavar="'KEY AMOUNT=VALUE …'",
        help="a finding, as in 'back_tight missing=2cm half=left taken=pinch'; units are understood; what is pointed at as "
        "at=PIECE or at=PIECE/LINE, a line that was draped anew with marks=FILE.csv",
    )
    fit.add_argument(
        "--remedy", action="append", default=[], metavar="KEY", help="the remedy of each finding, in their order"
    )
    fit.add_argument("--out", type=Path, required=True, help="FILE.json, .svg or .pdf of the garment afterwards")
    fit.add_argument("--recipe-out", type=Path, help="FILE.json: the recipe with the changes in it")
    fit.add_argument("--paper", default="a4", help="a4 or letter, for .pdf")
    fit.set_defaults(run=lambda options: _fit(options, read(options), write))


def _findings(options: argparse.Namespace) -> int:
    for kind in finding_kinds().values() if options.key is None else (finding_kind(options.key),):
        amounts = ", ".join(f"{i.symbol} {i.default:g}" + (f" {i.unit}" if i.unit else "") for i in kind.inputs)
        print(f"{kind.key:<20}{kind.seen}: {amounts or 'no amount'}")
        if options.key is not None:
            print(f"  {kind.cause}")
            for entry in kind.inputs:
                print(f"  {entry.symbol:<14}{entry.label}, {entry.low:g} to {entry.high:g}, counted {entry.counted}")
            for remedy in kind.remedies:
                print(f"  {remedy.key:<18}{remedy.title}. {remedy.reason}")
            if kind.normal:
                print(f"  normal            {kind.normal}")
    return 0


def _fit(options: argparse.Namespace, asked: Asked, write: Write) -> int:
    document, body = asked.document, asked.body
    seen = [_seen(f"found{i}", text) for i, text in enumerate(options.find, 1)]
    chosen = {one.uid: remedy for one, remedy in zip(seen, options.remedy, strict=False)}
    for one in seen:
        if one.uid in chosen:
            one.kind.remedy(chosen[one.uid])
    evaluator, recipe = Evaluator(catalogue()), document.recipe(body, asked.sides)
    made = plan(seen, recipe, evaluator.evaluate(recipe), evaluator.evaluate, chosen=chosen)
    for planned in made.findings:
        print(_planned(planned))
    for conflict in made.conflicts:
        print(f"at odds: {plain(conflict.words)}")
    names = [f"fit{i}" for i in range(1, len(made.deeds) + 1)]
    after = with_deeds(recipe, [one.deed for one in made.deeds], names)
    write(options, body, evaluator.evaluate(after))
    if options.recipe_out is not None:
        steps = [StepDoc.model_validate(step.as_data() | {"version": step.version or 1}) for step in after.steps]
        written = document.model_copy(update={"steps": steps})
        options.recipe_out.write_text(write_recipe(written), encoding="utf-8")
    return 1 if any(planned.chosen is None for planned in made.findings) else 0


def _seen(uid: str, text: str) -> Seen:
    """Return a finding of the form 'back_tight missing=2cm half=left'.

    Raises:
        UnknownName, ValueOutOfRange: there is no such finding, or a part of it cannot be read.
    """
    key, *given = shlex.split(text)
    parts: dict[str, str] = dict(one.partition("=")[::2] for one in given)
    try:
        half, taken = Half(parts.pop("half", "both")), Taken(parts.pop("taken", "whole"))
        counted = Counted(parts.pop("counted")) if "counted" in parts else None
        at = _pointed(parts.pop("at", ""), parts.pop("marks", ""))
        amounts = {symbol: read_length(value, unit=Unit.CM).cm for symbol, value in parts.items()}
    except (ValueError, UnreadableLength) as error:
        raise ValueOutOfRange(
            f"“{text}”: {error}.", fix="For example: 'back_tight missing=2cm half=left taken=pinch'.", where=(key,)
        ) from error
    return Seen(finding_kind(key), amounts, taken, counted, half, at, uid=uid)


def _pointed(at: str, marks: str) -> Pointed | None:
    """Return what a finding points at: a piece, a line of it, and the marks by which that was draped anew.

    Raises:
        UnreadableFile: the marks are no table of one line, or of no line.
    """
    if marks and not at:
        raise UnreadableFile("Marks of no line.", fix="Say which line they are of: at=PIECE/LINE.", where=(marks,))
    if not at:
        return None
    piece, _, line = at.partition("/")
    if not marks:
        return Pointed(piece, line)
    panels = read_marks(text_of(Path(marks))).panels
    known = {kind.value for kind in MarkedAs}
    odd = [i for i, mark in enumerate(panels[0].marks, 1) if mark.kind.value not in known]
    if len(panels) > 1 or odd:
        raise UnreadableFile(
            f"Mark {odd[0]} is a {panels[0].marks[odd[0] - 1].kind.value}."
            if odd
            else f"There are {len(panels)} panels.",
            fix=f"A line has marks of one panel, each a {' or a '.join(sorted(known))}.",
            where=(marks,),
        )
    laid = tuple(LaidMark(kind=MarkedAs(m.kind.value), across=m.across, along=m.along) for m in panels[0].marks)
    return Pointed(piece, line, Marked(marks=laid))


def _planned(planned: Planned) -> str:
    """Return a finding of a plan in one line: its remedy, where it belongs, its sum and what follows; or why not."""
    kind, way = planned.seen.kind, planned.chosen
    if way is None or way.worked is None:
        refusals = [planned.refused, *(one.refused for one in planned.ways)]
        why = next((one.message for one in refusals if one is not None), "there is nothing to change")
        return f"{kind.key}: not here: {plain(why)}"
    sections = dict.fromkeys(
        "amends the style" if isinstance(deed, Amending) else deed.section.value for deed in way.worked.deeds
    )
    parts = [f"{kind.key}: {way.remedy.key} ({', '.join(sections) or 'the pattern is left'})"]
    if way.remedy.sum is not None:
        parts.append(f"{plain(way.worked.sum_text)} = {way.worked.sum_value:.2f} {way.remedy.sum_label}")
    if way.came is not None:
        parts += [f"follows: {plain(words)}" for words in way.came.follows]
        parts += [f"no longer agrees: {plain(words)}" for words in way.came.odd]
    return "; ".join(parts)
