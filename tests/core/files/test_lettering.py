"""Names print in their own script, with letters that are in the file: read back by another reader of PDF (pypdfium2)."""

import pypdfium2
import pytest

from izett.files.lettering import runs
from izett.files.measure_sheet_pdf import write_measure_sheet
from izett.files.pdf import write_pdf
from izett.finishing.sheet import sheet_pieces
from izett.measuring.sheet import sheet_of
from tests.core.blocks import drafted
from tests.garments import BODY

NAMES = ["旗袍", "мария", "Ελένη", "Zoë Dvořák", "きもの", "½ − ⅛", "旗袍 для Марии"]


def words_of(content):
    pdf = pypdfium2.PdfDocument(content)
    return "\n".join(page.get_textpage().get_text_range() for page in pdf)


@pytest.mark.parametrize("name", NAMES)
def test_a_name_is_read_back_from_the_print(name):
    sheets = sheet_pieces(drafted(["bodice"], BODY).pattern, title=name)
    content = write_pdf(sheets, paper="a4", title=name, notes=(f"for {name}",))
    assert name in words_of(content)
    if not name.isascii():
        assert (b"/FontFile2" in content) == any(face not in ("Helvetica", "Helvetica-Bold") for face, _ in runs(name))


def test_the_measuring_sheet_is_printed_under_the_wearers_own_name():
    from dataclasses import replace

    sheet = replace(sheet_of(BODY, taken_by="helper"), wearer="Мария 王")
    content = write_measure_sheet(sheet, paper="a4", preparation=[], cautions=())
    assert "Мария 王" in words_of(content)


def test_plain_letters_need_no_other_face():
    assert list(runs("Concert dress, “fitted” top – 95 %")) == [("Helvetica", "Concert dress, “fitted” top – 95 %")]
    assert [face for face, _ in runs("旗袍 a", bold=True)] == ["NotoSansSC-Subset", "Helvetica-Bold"]
