"""A garment's pieces in whichever file a name asks for: SVG, DXF, PDF, a plot file, or the lengths of its seams."""

from pathlib import Path

from izett.errors import FormatNotWritten
from izett.files.dxf import write_dxf
from izett.files.hpgl import write_hpgl
from izett.files.lists_csv import write_seam_lengths
from izett.files.pdf import ROLL_WIDTH, write_pdf
from izett.files.svg import write_svg
from izett.finishing.allowances import refuse_missing
from izett.finishing.sheet import sheet_pieces
from izett.pattern.document import Pattern


def write_sheets(pattern: Pattern, out: Path, *, paper: str = "a4", numbered: bool = False) -> None:
    """Write a garment's pieces, ready to be cut.

    Args:
        pattern: the garment.
        out: the file: `.svg`, `.dxf`, `.pdf`, `.plt`, or `.csv` for the lengths of its seams.
        paper: of a PDF.
        numbered: whether a DXF has its layers by number.

    Raises:
        AllowanceMissing: a line was left without a seam allowance, and the file is one to cut by.
        FormatNotWritten: there is no such kind of file.
    """
    kind = out.suffix.lower()
    if kind == ".csv":
        out.write_text(write_seam_lengths(pattern), encoding="utf-8")
        return
    if kind not in (".svg", ".dxf", ".pdf", ".plt"):
        raise FormatNotWritten(
            f"Files ending in “{kind}” cannot be written.",
            fix="Use .json, .svg, .dxf, .pdf, .plt or .csv.",
            where=(str(out),),
        )
    refuse_missing(pattern)
    sheets = sheet_pieces(pattern)
    if kind == ".svg":
        out.write_text(write_svg(sheets), encoding="utf-8")
    elif kind == ".dxf":
        out.write_text(write_dxf(sheets, numbered=numbered), encoding="utf-8")
    elif kind == ".plt":
        out.write_text(write_hpgl(sheets, width=ROLL_WIDTH), encoding="latin-1", errors="replace")
    else:
        out.write_bytes(write_pdf(sheets, paper=paper))
