"""A job's pattern as it stands in a file: to print, to cut, to plot, or to read elsewhere."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

from izett.cutting.cloth import Use
from izett.cutting.lay.cutouts import Wanted
from izett.cutting.order import ToCut, cutting_order
from izett.cutting.uses import use_of
from izett.files.dxf import write_dxf
from izett.files.hpgl import write_hpgl
from izett.files.lists_csv import write_cutting_list, write_seam_lengths
from izett.files.pattern_json import evaluated_document, write_pattern
from izett.files.pdf import ROLL_WIDTH, pages_of, write_pdf
from izett.files.stacks import Stack, nested
from izett.files.svg import write_svg
from izett.finishing.allowances import purposes, refuse_missing
from izett.finishing.sheet import SheetPiece, sheet_pieces
from izett.recipe.evaluation import Evaluation
from studio.cautions import CAUTIONS
from studio.lays import cut_of, table_of
from studio.limits import MOST_PAGES
from studio.models import Job, Wearer
from studio.problems import Refusal
from studio.state import head_of
from studio.workroom import evaluate_revision, measures_of


class FileKind(StrEnum):
    """What a job's pattern is written as."""

    PDF = "pdf"
    SVG = "svg"
    DXF = "dxf"
    DXF_NUMBERED = "dxf-numbered"
    PLOT = "plt"
    JSON = "json"
    SEAMS = "seams"
    CUTTING_LIST = "cutting-list"


class Paper(StrEnum):
    """What a pattern is printed on."""

    A4 = "a4"
    LETTER = "letter"
    A0 = "a0"
    ROLL = "roll"


@dataclass(frozen=True, slots=True)
class _Written:
    """A kind of file: its type, the end of its name, and whether it is one to cut by."""

    media: str
    ending: str
    to_cut: bool = True


KINDS: Mapping[FileKind, _Written] = {
    FileKind.PDF: _Written("application/pdf", "pdf"),
    FileKind.SVG: _Written("image/svg+xml", "svg"),
    FileKind.DXF: _Written("image/vnd.dxf", "dxf"),
    FileKind.DXF_NUMBERED: _Written("image/vnd.dxf", "numbered.dxf"),
    FileKind.PLOT: _Written("application/vnd.hp-hpgl", "plt"),
    FileKind.JSON: _Written("application/json", "izett-pattern.json", to_cut=False),
    FileKind.SEAMS: _Written("text/csv", "seams.csv", to_cut=False),
    FileKind.CUTTING_LIST: _Written("text/csv", "cutting-list.csv", to_cut=False),
}
MEDIA = tuple(dict.fromkeys(kind.media for kind in KINDS.values()))


def written(job: Job, evaluation: Evaluation, kind: FileKind, paper: Paper) -> str | bytes:
    """Return a job's pattern as a file.

    Raises:
        AllowanceMissing: a line was left without a seam allowance, and the file is one to cut by.
        Refusal: it would fill more sheets of paper than anybody joins.
    """
    pattern = evaluation.pattern
    if KINDS[kind].to_cut:
        refuse_missing(pattern)
    title = title_of(job)

    def sheets() -> list[SheetPiece]:
        return sheet_pieces(pattern, title=title, wearer=worn_by(job.wearer))

    ways: Mapping[FileKind, Callable[[], str | bytes]] = {
        FileKind.PDF: lambda: _pdf(sheets(), evaluation, paper, title),
        FileKind.SVG: lambda: write_svg(sheets()),
        FileKind.DXF: lambda: write_dxf(sheets()),
        FileKind.DXF_NUMBERED: lambda: write_dxf(sheets(), numbered=True),
        FileKind.PLOT: lambda: write_hpgl(sheets(), width=ROLL_WIDTH).encode("latin-1", "replace"),
        FileKind.JSON: lambda: write_pattern(evaluated_document(evaluation, measures=measures_of(head_of(job).sheet))),
        FileKind.SEAMS: lambda: write_seam_lengths(pattern),
        FileKind.CUTTING_LIST: lambda: write_cutting_list(cut_by_cloth(cut_of(job, table_of(job)))),
    }
    return ways[kind]()


def title_of(job: Job) -> str:
    """Return what every sheet and label of a job says: the garment, its state, and after which muslin."""
    muslins = job.rounds.count()
    after = f", after muslin {muslins}" if muslins else ""
    return f"{job.garment}, revision {head_of(job).number}{after}"


def worn_by(wearer: Wearer) -> str:
    """Return whom a label is for: a standard size by its size, a person by initials."""
    if not wearer.size:
        return initials(wearer.name)
    size, _, height = wearer.size.partition(":")[2].partition("@")
    return f"size {size}{f', height {height}' if height else ''}"


def cut_by_cloth(cut: Sequence[Wanted]) -> list[tuple[Use, list[ToCut]]]:
    """Return what is cut of each cloth that there are pieces of, in the order of cutting."""
    found: list[tuple[Use, list[ToCut]]] = []
    for use in Use:
        own = [one for one in cut if use_of(one.sheet) is use]
        if own:
            found.append((use, cutting_order(own)))
    return found


def run_on_paper(job: Job, paper: Paper) -> bytes:
    """Return the sizes of a job's run nested over each other, as PDF.

    Raises:
        AllowanceMissing: a line was left without a seam allowance.
        Refusal: no sizes are chosen, or it would fill more sheets of paper than anybody joins.
        IzettError: a size gives no draft.
    """
    table = table_of(job)
    if table.run is None:
        raise Refusal(409, "no-sizes", "No sizes are chosen.", fix="Choose them beside the lay plan, under Cut.")
    evaluation = evaluate_revision(head_of(job))
    refuse_missing(evaluation.pattern)
    sizes: dict[str, list[SheetPiece]] = {}
    for one in cut_of(job, table):
        sizes.setdefault(one.size, []).append(one.sheet)
    return _pdf(nested(sizes), evaluation, paper, f"{title_of(job)}, sizes {', '.join(sizes)}")


def _pdf(sheets: Sequence[SheetPiece] | Sequence[Stack], evaluation: Evaluation, paper: Paper, title: str) -> bytes:
    if (pages := pages_of(sheets, paper=paper.value)) > MOST_PAGES:
        raise Refusal(
            422,
            "too-many-pages",
            f"This pattern would fill {pages} sheets of paper; at most {MOST_PAGES} are printed at once.",
            fix="Look for a piece that is far too large, or take the SVG file to a wide printer.",
        )
    notes = (f"Allowances: {purposes()[evaluation.pattern.allowances.purpose].title.lower()}.", *CAUTIONS["cut"])
    return write_pdf(sheets, paper=paper.value, title=title, notes=notes)


def initials(name: str) -> str:
    """Return a wearer's initials: sheets lie about, names need not."""
    return "".join(word[0].upper() + "." for word in name.split() if word)
