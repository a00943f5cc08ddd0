"""Cutting, as its user does it: a cloth, a lay plan with what it needs, a piece moved by hand and by key, sums, lists, files."""

import re

import pytest
from PIL import Image
from playwright.sync_api import expect

CLOTH = "Black crêpe"


@pytest.fixture
def cutting(tab):
    """A bodice on the cutting table, with a cloth."""
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("7")
    page.wait_for_url("**/cut")
    page.get_by_text("Cloths", exact=True).click()
    with tab.keeping():
        tab.button("Type a cloth").click()
    with tab.keeping():
        tab.field("Name").fill(CLOTH)
        tab.field("Name").press("Tab")
    return tab


def outline(page, number):
    return page.locator(f"[data-placed='{number}'] path").get_attribute("d")


def test_a_garment_is_laid_moved_kept_and_printed(cutting):
    tab, page = cutting, cutting.page
    page.get_by_text("Lay plan", exact=True).click()
    tab.button("Lay the pieces").click()
    keep = tab.button("Keep this plan", exact=False)
    keep.wait_for()
    assert page.locator("[data-placed]").count() == 2
    assert re.search(r"\d\.\d0 m", page.locator("aside dl").inner_text())
    # By key: take the next in hand, move it, turn it round; the plan is read each time.
    page.get_by_role("application").focus()
    page.keyboard.press("n")
    page.locator("[data-placed='0'].current").wait_for()
    before = outline(page, 0)
    page.keyboard.press("Shift+ArrowRight")
    expect(page.locator("[data-placed='0'] path")).not_to_have_attribute("d", before)
    # By hand: dragged over the other one, it is told what is wrong.
    box = page.locator("[data-placed='1'] path").bounding_box()
    other = page.locator("[data-placed='0'] path").bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(other["x"] + other["width"] / 2, other["y"] + other["height"] / 2, steps=4)
    page.mouse.up()
    page.get_by_text("lie over each other").wait_for()
    page.get_by_text("is in hand").wait_for()
    tab.button("Lay the pieces").click()
    page.get_by_text("lie over each other").wait_for(state="detached")
    with tab.keeping():
        keep.click()
    page.get_by_role("link", name="Print the plan").wait_for()
    with page.expect_download() as printed:
        page.get_by_role("link", name="Print the plan").click()
    assert printed.value.path().read_bytes().startswith(b"%PDF")
    # It is there again, and says so when the pieces have changed.
    page.reload()
    page.locator("[data-placed]").first.wait_for()
    page.get_by_text("Pieces", exact=True).click()
    with tab.keeping():
        page.get_by_label("Cut for").select_option("bridal")
    page.get_by_text("Lay plan", exact=True).click()
    page.get_by_text("have changed since this plan was laid").wait_for()


def test_what_is_typed_just_before_is_laid_and_a_plan_that_it_outdates_says_so(cutting):
    """By key, as fast as keys go: the number is still being kept when the pieces are asked for."""
    tab, page = cutting, cutting.page
    page.get_by_text("Lay plan", exact=True).click()
    garments = tab.field("How many garments")
    garments.fill("2")
    page.evaluate(
        """() => {
            document.activeElement.blur();
            [...document.querySelectorAll('button')].find((one) => one.innerText === 'Lay the pieces').click();
        }"""
    )
    keep = tab.button("Keep this plan", exact=False)
    keep.wait_for()
    assert page.locator("[data-placed]").count() == 4
    assert keep.is_enabled()
    garments.fill("3")
    garments.press("Tab")
    page.get_by_text("have changed since this plan was laid").wait_for()
    assert keep.is_disabled()


def test_a_sum_is_worked_kept_and_used(cutting):
    tab, page = cutting, cutting.page
    page.get_by_text("Sums", exact=True).click()
    page.get_by_label("A worksheet").select_option("elastic")
    girth = tab.field("Girth of the body")
    girth.fill("29 1/2 in")
    girth.press("Tab")
    expect(page.locator("[data-result=elastic_cut]")).to_have_text("67.2 cm")
    with tab.keeping():
        tab.button("Keep it with the job").click()
    page.get_by_text("Lists", exact=True).click()
    page.get_by_text("elastic").wait_for()
    expect(page.locator("aside li").first).to_contain_text("cut 1, on the fold")
    page.reload()
    page.get_by_text("elastic").wait_for()


def test_a_cloth_that_will_not_do_is_told_and_nothing_is_lost(cutting):
    tab, page = cutting, cutting.page
    width = tab.field("Width, selvedge to selvedge")
    width.fill("0")
    width.press("Tab")
    expect(width).to_have_attribute("aria-invalid", "true")
    with tab.keeping():
        width.fill("30")
        width.press("Tab")
    page.get_by_text("Lay plan", exact=True).click()
    tab.button("Lay the pieces").click()
    page.get_by_text("Wider than the cloth as it lies").wait_for()
    page.get_by_text("fold it otherwise").wait_for()
    with tab.keeping():
        page.get_by_text("Cloths", exact=True).click()
        tab.button("Put it on the shelf").click()
        tab.button("Another cloth").click()
    page.get_by_label("From the shelf").locator("option", has_text=CLOTH).wait_for(state="attached")


def test_what_is_pointed_at_is_made_ready(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("7")
    page.wait_for_url("**/cut")
    # By key: chosen from a list, its numbers typed in either unit.
    thing = page.get_by_label("Point at an edge or a piece to make it ready, or choose")
    thing.select_option(label="Bodice front: front side")
    ready = page.get_by_label("What is pointed at")
    with tab.keeping():
        tab.field("Seam allowance").fill("3/4 in")
        tab.field("Seam allowance").press("Tab")
    expect(tab.field("Seam allowance")).to_have_value("1.91")
    with tab.keeping():
        ready.get_by_label("Corner at the front armhole").select_option("square")
    with tab.keeping():
        ready.get_by_role("button", name="Turn it").click()
    with tab.keeping():
        tab.field("Turned, deep").fill("5")
        tab.field("Turned, deep").press("Tab")
    expect(tab.field("Of the raw edge turned under")).to_have_value("1")
    with tab.keeping():
        ready.get_by_role("button", name="Do not turn it").click()
    expect(ready.get_by_label("Corner at the front armhole")).to_have_value("square")
    page.keyboard.press("Escape")
    thing.wait_for()
    # By hand: a piece pointed at on the table.
    box = page.locator("[data-piece=bodice_front] .paper").bounding_box()
    page.mouse.click(box["x"] + 0.3 * box["width"], box["y"] + 0.45 * box["height"])
    expect(ready).to_contain_text("Bodice front")
    before = page.locator("[data-piece=bodice_front] .paper").get_attribute("d")
    with tab.keeping():
        ready.get_by_label("Whole on paper").check()
    expect(page.locator("[data-piece=bodice_front] .paper")).not_to_have_attribute("d", before)
    with tab.keeping():
        ready.get_by_label("Cut from").select_option("lining")
    with tab.keeping():
        ready.get_by_label(re.compile("^Grain")).select_option("bias")
    page.get_by_text("Lists", exact=True).click()
    page.get_by_text("Bodice front", exact=False).first.wait_for()
    expect(page.locator("aside h3", has_text="ining")).to_be_visible()


def test_a_print_that_was_scaled_is_not_cut_by(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("7")
    page.wait_for_url("**/cut")
    side = tab.field("The printed square of 10 cm measures")
    side.fill("9.4")
    side.press("Tab")
    expect(page.get_by_text("Do not cut by this print")).to_be_visible()
    side.fill("10")
    side.press("Tab")
    expect(page.get_by_text("can be cut by")).to_be_visible()


def test_sizes_are_chosen_and_laid_together(cutting):
    tab, page = cutting, cutting.page
    page.get_by_text("Lay plan", exact=True).click()
    with tab.keeping():
        page.get_by_label("Cut for").select_option("en_13402_3_women")
    with tab.keeping():
        page.get_by_label("84", exact=True).check()
    tab.button("Lay the pieces").click()
    tab.button("Keep this plan", exact=False).wait_for()
    assert page.locator("[data-placed]").count() == 4
    expect(page.get_by_text("By the rule of thumb")).to_be_visible()
    with page.expect_download() as nested:
        page.get_by_role("link", name="Sizes nested, A0").click()
    assert nested.value.path().read_bytes().startswith(b"%PDF")
    page.get_by_text("Lists", exact=True).click()
    page.get_by_text("of 2, size 84").first.wait_for()
    with page.expect_download() as lists:
        page.get_by_role("link", name="Print the lists and labels, A4").click()
    assert lists.value.path().read_bytes().startswith(b"%PDF")


def test_the_plotter_draws_shows_and_is_stopped(cutting, tmp_path):
    tab, page = cutting, cutting.page
    page.get_by_text("Plotter", exact=True).click()
    page.get_by_text("Nothing is in the queue").wait_for()
    tab.button("Plot this pattern").click()
    queue = page.locator("aside li")
    expect(queue).to_have_count(1)
    expect(queue).to_contain_text("the pen is at it")
    picture = page.locator("img[alt*='what the pen has drawn']")
    picture.wait_for()
    seen = picture.get_attribute("src")
    expect(picture).not_to_have_attribute("src", seen)
    assert picture.evaluate("image => image.naturalWidth > 0")
    # A file of somebody else's waits its turn; what is no plot file is told, and nothing is lost.
    (tmp_path / "square.plt").write_bytes(b"IN;SP1;PU0,0;PD4000,0,4000,4000,0,4000,0,0;PU;")
    page.get_by_label("A plot file").set_input_files(tmp_path / "square.plt")
    expect(queue).to_have_count(2)
    expect(queue.nth(1)).to_contain_text("waits")
    tab.expect_complaint("422")
    (tmp_path / "odd.plt").write_bytes(b"hello")
    page.get_by_label("A plot file").set_input_files(tmp_path / "odd.plt")
    page.get_by_text("This is no plot file").wait_for()
    queue.nth(0).get_by_role("button", name="Stop").click()
    expect(queue.nth(0)).to_contain_text("stopped")
    expect(queue.nth(1)).to_contain_text("done", timeout=20_000)
    queue.nth(0).get_by_role("button", name="Take").click()
    expect(queue).to_have_count(1)
    page.reload()
    expect(queue).to_have_count(1)


def test_a_cloth_has_a_swatch(cutting, tmp_path):
    tab, page = cutting, cutting.page
    Image.new("RGB", (900, 600), "#445566").save(tmp_path / "swatch.jpg")
    with tab.keeping():
        page.get_by_label("A photo of the swatch").set_input_files(tmp_path / "swatch.jpg")
    swatch = page.get_by_alt_text(f"Swatch of {CLOTH}")
    swatch.wait_for()
    assert swatch.evaluate("image => image.naturalWidth") == 320
    with tab.keeping():
        tab.button("Take it off").click()
    swatch.wait_for(state="detached")


def test_a_place_is_marked_beside_an_edge_changed_bought_and_taken_off(cutting):
    tab, page = cutting, cutting.page
    page.get_by_text("Pieces", exact=True).click()
    page.locator("#thing").select_option("Bodice front: front side")
    tab.button("Mark a place beside it", exact=False).click()
    form = page.get_by_role("form", name="Mark a place")
    form.get_by_label("what is marked").select_option("snap")
    expect(form.get_by_text("Snap: ", exact=False)).to_be_visible()
    assert page.locator("path.place").count() == 1
    with tab.keeping():
        tab.button("Keep this step").click()
    marked = page.get_by_role("region", name="What is pointed at").get_by_text("Snap: ", exact=False)
    marked.click()
    tab.field("from the line into the piece").fill("3.5")
    tab.field("from the line into the piece").press("Tab")
    with tab.keeping():
        tab.button("Keep the change").click()
    expect(marked).to_contain_text("3.5 cm beside")
    page.get_by_text("Lists", exact=True).click()
    expect(page.get_by_text("snaps,", exact=False)).to_contain_text("2 (as marked on the pieces)")
    page.get_by_text("Pieces", exact=True).click()
    with tab.keeping():
        tab.button("Take off: Snap", exact=False).click()
    expect(page.locator("path.place")).to_have_count(0)


def test_a_measured_shrinkage_goes_straight_into_the_cloth(cutting):
    tab, page = cutting, cutting.page
    page.get_by_text("Sums", exact=True).click()
    page.get_by_label("A worksheet").select_option("shrinkage")
    tab.field("Along the selvedge afterwards").fill("47")
    tab.field("Along the selvedge afterwards").press("Tab")
    with tab.keeping():
        tab.button(f"Shrinkage of the warp, 6 %, into: {CLOTH}").click()
    page.get_by_text("Cloths", exact=True).click()
    expect(tab.field("Shrinkage along the warp")).to_have_value("6")


def test_sums_are_printed(cutting):
    tab, page = cutting, cutting.page
    page.get_by_text("Sums", exact=True).click()
    page.get_by_label("A worksheet").select_option("bones")
    with tab.keeping():
        tab.button("Keep it with the job").click()
    with page.expect_download() as printed:
        page.get_by_role("link", name="Print these sums, A4").click()
    assert printed.value.path().read_bytes().startswith(b"%PDF")
