"""A draped bustier from the tear list to the printed pieces, by keyboard; marks put right on the table; what goes wrong."""

import re
from datetime import date

import pytest
from playwright.sync_api import expect

from izett.draping.form import Hand, draped
from izett.files.marks_csv import write_marks
from studio import demo
from studio.actions.keep_sheet import keep_sheet
from studio.demo_trace import traced_cardigan
from studio.models import Wearer
from studio.schemas import SheetIn, TakenIn
from tests.browser.conftest import MEASURES
from tests.browser.test_by_keyboard import reach, typed
from tests.browser.test_screens import serious
from tests.draped import truth_of
from tests.garments import BODY

pytestmark = pytest.mark.django_db(transaction=True)

#: A bustier panel as it is typed: the letter of its kind, across, along, its lines where the page would not know them.
CENTRE_FRONT = (
    ("h", "0", "4", "neck+centre_front"),
    ("h", "0", "-18", "centre_front+waist"),
    ("", "4.5", "-18.1", "waist"),
    ("c", "9", "-18.5", "waist+princess"),
    ("", "9.4", "-9", "princess"),
    ("", "10", "0", "princess"),
    ("c", "12", "6", "princess+neck"),
)


def opened(tab, garment="Gala bustier"):
    """A ticket for something that is draped: no block."""
    wearer = Wearer.objects.create(name="Odile Varn")
    readings = {symbol: TakenIn(text=text, unit="cm") for symbol, text in MEASURES.items()}
    keep_sheet(wearer.id, SheetIn(taken_on=date.today(), readings=readings))
    tab.open("/new")
    page = tab.page
    page.get_by_label("Blocks").select_option("given")
    page.get_by_label("Garment").fill(garment)
    tab.button("Open it").click()
    page.wait_for_url(re.compile("/drape"))
    return page


def type_marks(page, rows):
    """Type marks by keyboard alone, the focus being in the empty row."""
    for number, (letter, across, along, line) in enumerate(rows, 1):
        page.get_by_label("Next mark, across").wait_for()
        if letter:
            page.keyboard.press(letter)
        page.keyboard.type(across)
        page.keyboard.press("Enter")
        page.keyboard.type(along)
        page.keyboard.press("Tab")
        page.keyboard.press("Control+a")
        page.keyboard.type(line)
        page.keyboard.press("Enter")
        page.get_by_role("group", name=f"Mark {number}", exact=True).wait_for()


def test_from_the_tear_list_to_printed_pieces_by_keyboard(tab):
    page = opened(tab)
    with tab.keeping():
        page.get_by_label("What is draped").select_option("bustier")
    with tab.keeping():
        length = page.get_by_role("group", name="Centre front").get_by_label(re.compile("^Length"))
        typed(page, length, "10 5/8 in")
        page.keyboard.press("Enter")
    with tab.keeping():
        typed(page, page.get_by_role("group", name="Centre front").get_by_label(re.compile("^Width")), "10.5")
        page.keyboard.press("Enter")
    page.get_by_role("img", name=re.compile("1 strips, as it is torn")).wait_for()
    assert page.get_by_text("34.5 cm × 18.0 cm").is_visible()
    with page.expect_download() as paper:
        page.get_by_role("link", name="A4").click()
    assert paper.value.suggested_filename.endswith("tear-list.pdf")

    page.get_by_text("Session", exact=True).click()
    first = page.get_by_role("checkbox").first
    first.wait_for()
    with tab.keeping():
        page.locator("body").press("Space")
    assert first.is_checked()

    page.get_by_text("Marks", exact=True).click()
    reach(page, page.get_by_role("button", name="+ Centre front"))
    page.keyboard.press("Enter")
    type_marks(page, CENTRE_FRONT)
    page.get_by_role("img", name="The centre front with its marks").get_by_text("princess").wait_for()
    assert serious(tab) == []
    with tab.keeping():
        reach(page, tab.button("Keep the marks"))
        page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    page.get_by_text("True", exact=True).click()
    page.get_by_text(re.compile("in all; the farthest dot")).wait_for()
    page.goto(page.url.replace("/drape", "/cut").split("?")[0])
    with page.expect_download() as printed:
        page.get_by_role("link", name="Print file, A4").click()
    assert printed.value.path().read_bytes().startswith(b"%PDF")
    assert not tab.unexpected()


def test_a_table_is_pasted_a_mark_put_right_by_arrows_and_a_seam_by_pointing(tab):
    page = opened(tab)
    page.goto(page.url.split("?")[0] + "?part=marks")
    given = draped(truth_of("bustier", BODY), Hand())
    page.get_by_text("Paste marks, or read a table").click()
    page.get_by_label("Marks as a table").fill(write_marks(given))
    tab.button("Take them").click()
    page.get_by_role("group", name="Mark 1", exact=True).wait_for()
    # One dot is moved far off: it is told, and goes back by the arrows.
    princess = next(i for i, mark in enumerate(given.panels[0].marks) if mark.lines == ("princess",)) + 3
    field = page.get_by_label(f"Mark {princess + 1}, across", exact=True)
    before = field.input_value()
    field.fill(str(float(before) - 1))
    field.press("Enter")
    page.get_by_text(re.compile(f"Mark {princess + 1} of the .* off the princess")).wait_for()
    page.locator(f"[data-mark='{princess}'] .near").click()
    page.keyboard.press("Shift+ArrowRight")
    page.get_by_text(re.compile("off the princess")).wait_for(state="detached")
    assert float(field.input_value()) == pytest.approx(float(before), abs=0.011)
    with tab.keeping():
        tab.button("Keep the marks").click()
    page.get_by_text("True", exact=True).click()
    seams = page.get_by_role("listitem").filter(has_text="as marked")
    expect(seams).to_have_count(3)
    tab.button("Not a seam").first.click()
    expect(seams).to_have_count(2)
    tab.button("Point at two lines that are sewn together").click()
    sides = page.get_by_role("group", name="Lines that can be sewn").get_by_role(
        "button", name=re.compile("(side|princess)$")
    )
    sides.first.click()
    sides.first.click()
    page.get_by_text("said").first.wait_for()
    expect(seams).to_have_count(3)
    # Two panels are laid together at a seam: what runs across it is seen.
    tab.button("Lay together", exact=True).first.click()
    page.locator("[data-walk]").wait_for(state="attached")
    tab.button("at the other end", exact=True).first.click()
    page.locator("[data-walk]").wait_for(state="attached")
    tab.button("at the other end", exact=True).first.click()
    expect(page.locator("[data-walk]")).to_have_count(0)
    # Graded to another body, its pieces say so; taken back, they are hers again.
    page.locator("summary", has_text="Size").click()
    field = page.get_by_label("bust of the body it was draped on")
    field.fill("30")
    field.press("Tab")
    page.get_by_role("alert").filter(has_text="cm").first.wait_for()
    expect(page.get_by_text("Size: graded")).to_have_count(0)
    field.fill("88")
    field.press("Tab")
    page.get_by_text("(graded)").first.wait_for()
    field.fill("")
    field.press("Tab")
    page.get_by_text("(graded)").first.wait_for(state="detached")
    page.get_by_label("The line that is known").select_option(index=1)
    known = page.get_by_label("is to measure")
    known.fill("21")
    known.press("Tab")
    page.get_by_text("Size: enlarged").wait_for()
    with tab.keeping():
        tab.button("Keep the marks").click()
    assert tab.state()["recipe"]["given"]["enlarged"]["length"] == 21
    assert not tab.unexpected()


def test_what_is_typed_and_not_kept_is_there_after_the_page_was_closed(tab):
    page = opened(tab)
    page.goto(page.url.split("?")[0] + "?part=marks")
    page.get_by_label("A new panel").fill("Front")
    page.keyboard.press("Enter")
    type_marks(page, CENTRE_FRONT[:3])
    page.get_by_text("does not close yet").wait_for()
    page.reload()
    page.get_by_text("Typed here before and not kept: it was put back.").wait_for()
    assert page.get_by_label("Mark 2, along", exact=True).input_value() == "-18"
    page.get_by_label("Mark 2, along", exact=True).fill("nothing")
    page.keyboard.press("Enter")
    page.get_by_role("alert").filter(has_text="is not a length").wait_for()
    tab.button("Let them go").click()
    page.get_by_text("Choose a panel, or add one").wait_for()
    tab.expect_complaint("422")
    page.get_by_text("Paste marks, or read a table").click()
    page.get_by_label("Marks as a table").fill("panel,kind,across,along\nFront,star,1,2\n")
    tab.button("Take them").click()
    page.get_by_text("“star” is no kind of mark").wait_for()


def test_a_photo_is_traced_corrected_and_lies_under_its_panel(tab, tmp_path, monkeypatch):
    import cv2
    import numpy as np

    from izett.tracing.camera_stand_in import Shot, scene_middle
    from studio.storage import incoming
    from tests.draped import truth_of
    from tests.garments import BODY
    from tests.pictured import pictured

    monkeypatch.setattr(incoming, "folder", lambda: tmp_path / "incoming")
    piece = truth_of("bustier", BODY).pieces[0]
    taken = pictured(piece, shot=Shot(seed=8, above=80, width=1640, height=1230))
    photo = tmp_path / "photo.jpg"
    cv2.imwrite(str(photo), taken.picture)
    page = tab.page
    tab.new_ticket(garment="Old bustier")
    tab.open(f"/jobs/{tab.job_id()}/drape?part=picture")
    page.get_by_label("Choose a picture, or take one").set_input_files(photo)
    tab.field("What it is called").fill("Old centre front")
    sheet = page.get_by_role("group", name="The picture.", exact=False)
    sheet.focus()
    # The pointer stands in the middle of the picture: it is moved onto the piece by steps of a fiftieth.
    x, y = taken.tap
    for at, middle, low, high in ((x, 820, "ArrowLeft", "ArrowRight"), (y, 615, "ArrowUp", "ArrowDown")):
        for _ in range(round(abs(at - middle) / (2 * middle * 0.02))):
            page.keyboard.press(low if at < middle else high)
    page.keyboard.press("Enter")
    page.locator("[data-tap]").wait_for()
    tab.button("Trace it").focus()
    page.keyboard.press("Enter")
    page.get_by_text("Calibration checked to").wait_for()
    assert page.locator("[data-line]").count() == 4
    assert page.get_by_text("4 lines, 2 notches").count() == 1
    assert serious(tab) == []
    # By key: a notch is dropped, a corner moved by a millimetre and moved back by undoing it, a dot taken at the pointer.
    page.locator("[data-taken=notch]").first.focus()
    page.keyboard.press("Delete")
    page.get_by_text("4 lines, 1 notch,").wait_for()
    corner = page.locator("[data-taken=corner]").first
    stood = corner.get_attribute("transform")
    corner.focus()
    page.keyboard.press("ArrowRight")
    assert corner.get_attribute("transform") != stood
    tab.button("Undo the correction").click()
    assert corner.get_attribute("transform") == stood
    sheet.focus()
    page.keyboard.press("d")
    page.locator("[data-taken=dot]").wait_for()
    page.get_by_text("Tracing…").wait_for(state="hidden")
    # By hand: a corner is dropped by its button and taken again by a click beside it.
    corner.click()
    tab.button("Drop the corner").click()
    page.get_by_text("3 lines, 1 notch,").wait_for()
    at = [float(n) for n in re.findall(r"[-\d.]+", stood)]
    box = sheet.bounding_box()
    scale = min(box["width"] / 1640, box["height"] / 1230)
    left, top = box["x"] + (box["width"] - 1640 * scale) / 2, box["y"] + (box["height"] - 1230 * scale) / 2
    page.mouse.click(left + at[0] * scale + 2, top + at[1] * scale + 2)
    page.get_by_text("4 lines, 1 notch,").wait_for()
    again = page.locator("[data-taken=corner]").evaluate_all("all => all.map((one) => one.getAttribute('transform'))")
    found = [[float(n) for n in re.findall(r"[-\d.]+", one)] for one in again]
    assert min(abs(x - at[0]) + abs(y - at[1]) for x, y in found) < 1, (
        "it lies where the outline turns, not where the hand was"
    )
    page.get_by_text("Check it by a tape in the picture").click()
    tab.button("Click it in the picture").click()
    middle = scene_middle(taken.scene)
    for by in (-25, 25):
        ((x, y),) = taken.shot.pixels(np.add(middle, (by, 15)).reshape(1, 2), middle)
        page.mouse.click(left + x * scale, top + y * scale)
    page.get_by_text("Measured 50.").wait_for()

    tab.button("Take it as a panel").focus()
    page.keyboard.press("Enter")
    page.wait_for_url("**part=marks*")
    page.locator("image.under").wait_for()
    with tab.keeping():
        tab.button("Keep the marks").click()
    (panel,) = tab.state()["recipe"]["given"]["panels"]
    assert panel["name"] == "old_centre_front"
    assert sorted(mark["kind"] for mark in panel["marks"]) == ["cross"] * 4 + ["dot", "notch"]
    assert [one["lies"]["panel"] for one in tab.state()["pictures"]] == ["old_centre_front"]


def test_a_drawing_without_a_unit_is_asked_about_and_becomes_panels(tab, tmp_path):
    drawing = tmp_path / "yoke.svg"
    drawing.write_text('<svg xmlns="http://www.w3.org/2000/svg"><path id="yoke" d="M0 0H400V150H0Z"/></svg>')
    tab.expect_complaint("422")
    tab.new_ticket(garment="Yoked skirt")
    tab.open(f"/jobs/{tab.job_id()}/drape?part=picture")
    field = tab.page.get_by_label("Read a drawing: SVG, DXF or a pattern file")
    field.set_input_files(drawing)
    tab.page.get_by_text("does not say what its numbers are in").wait_for()
    tab.button("mm", exact=True).click()
    tab.page.wait_for_url("**part=marks*")
    assert tab.page.locator("[data-row]").count() == 4
    with tab.keeping():
        tab.button("Keep the marks").click()
    (panel,) = tab.state()["recipe"]["given"]["panels"]
    assert (panel["title"], max(mark["across"] for mark in panel["marks"])) == ("yoke", 40)


def test_an_old_pattern_takes_the_armhole_of_her_block_and_the_block_learns_from_it(tab):
    wearer = demo._wearer("Odile Varn", "", demo.VIOLA, "cm")
    block = demo._job(wearer, "Her T-shirt", None, "t_shirt")
    job = traced_cardigan(wearer)
    page = tab.page
    tab.open(f"/jobs/{job.id}/style")
    tab.button("Lay another pattern over this one").click()
    page.get_by_label("Whose lines").select_option(label="Her T-shirt, for Odile Varn")
    page.get_by_label("Laid together at").select_option(label="cardigan front shoulder tip")
    assert page.locator("[data-under='cardigan_front']").count() == 1, "hers lies under the old one"
    page.get_by_label("cardigan front armhole").check()
    tab.button("Take these lines").click()
    with tab.keeping():
        tab.button("Keep this step").click()
    (step,) = tab.state()["recipe"]["steps"]
    assert (step["kind"], step["params"]["piece"], step["version"]) == ("combine_lines", "cardigan_front", 2)
    page.locator("li.follows").get_by_text("Re-cap the sleeve").wait_for()

    tab.open(f"/jobs/{job.id}/drape?part=true")
    page.get_by_text("Beside the draft").click()
    page.get_by_label("Laid beside").select_option(label="Her T-shirt")
    page.locator("table.readings").get_by_role("row").filter(has_text="around the bust").last.wait_for()
    before = page.request.get(f"{tab.server}/api/jobs/{block.id}").json()
    page.locator(".ways button").first.click()
    page.get_by_text("Taken into Her T-shirt").wait_for()
    after = page.request.get(f"{tab.server}/api/jobs/{block.id}").json()
    learned = [len(one["recipe"]["steps"]) + len(one["recipe"]["overrides"]) for one in (before, after)]
    assert learned[1] > learned[0]
    assert after["can_undo"]

    # The same pieces as a wrap: they are no wrap of her, and that is said.
    page.get_by_label("Taken from").select_option("wrap")
    page.get_by_text("does not add up to the girths").wait_for()
    page.get_by_text("never the neck").wait_for()
