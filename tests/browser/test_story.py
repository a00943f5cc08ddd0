"""The whole job in the browser: measures → draft → print file → finding → remedy → overlay → next round."""

import pypdfium2
import pytest

from izett.drafting.method import draft
from izett.drafting.methods.bodice import METHOD
from izett.pattern.sewn import span_length
from izett.recipe.model import Recipe, Step
from izett.units import Unit, show_length

pytestmark = pytest.mark.django_db(transaction=True)

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "height": 168.0, "high_bust_girth": 87.0}


def point_on(page, selector):
    """Return a place on screen that lies on an SVG path."""
    return page.locator(selector).first.evaluate(
        "e => { const p = e.getPointAtLength(e.getTotalLength() / 2).matrixTransform(e.getScreenCTM()); return [p.x, p.y] }"
    )


def test_from_the_tape_to_the_second_muslin(tab, evaluator, tmp_path):
    page = tab.page
    tab.open("/")
    page.get_by_text("Nothing on the bench yet").wait_for()
    page.get_by_role("link", name="Write the first ticket").click()
    tab.field("Name").fill("Odile Varn")
    tab.field("Garment").fill("Recital bodice")
    tab.button("On to measuring").click()

    # Measure: both units typed freely, in one go by keyboard.
    page.locator("[data-measure=height]").wait_for()
    order = page.locator("[data-measure]").evaluate_all("es => es.map(e => e.dataset.measure)")
    typed = {"height": "168", "bust_girth": "36.2204724409in", "waist_girth": "74", "high_bust_girth": "87 cm"}
    page.locator(f"[data-measure={order[0]}]").focus()
    for symbol in order:
        assert page.evaluate("document.activeElement.dataset.measure") == symbol
        page.keyboard.type(typed.get(symbol, ""))
        page.keyboard.press("Enter")
    page.get_by_text("What is not taken is estimated").wait_for()
    tab.button("Keep the sheet and draft").click()

    # Draft: numbers on screen against the core.
    page.wait_for_url("**/draft*")
    page.locator("[data-piece=bodice_back]").wait_for()
    page.get_by_text("Sums", exact=True).click()
    readings = {r["symbol"]: r["cm"] for r in tab.state()["sheet"]["readings"]}
    assert readings == pytest.approx(BODY, abs=1e-9)
    values = draft(METHOD, readings).values
    for symbol in ("front_width", "back_width", "neck_depth", "apex_level", "front_dart_intake", "underarm_level"):
        assert tab.sum_value(symbol) == show_length(values[symbol], unit=Unit.CM)
    assert "estimated" in page.locator("[data-sum=armhole_depth]").inner_text()

    # Pointing links both ways.
    page.locator("[data-sum=back_neck_width]").hover()
    assert page.locator("path.line.lit").count() >= 1
    x, y = point_on(page, "[data-line='front.armhole']")
    page.mouse.move(x, y)
    page.locator("[data-sum=across_front_line].pointed").wait_for()
    pattern = draft(METHOD, readings).pattern
    armhole = next(e for e in pattern.piece("bodice_front").edges if e.lineage == "front.armhole").curve.length
    assert f"front armhole: {show_length(armhole, unit=Unit.CM)}" in page.locator(".reading").inner_text().replace(
        "\u00a0", " "
    )

    # Ease changed live.
    page.get_by_text("Ease", exact=True).click()
    field = tab.field("Bust ease")
    field.fill("3 in")
    with tab.keeping():
        field.press("Enter")
    eased = draft(METHOD, readings, overrides={"bust_ease": 7.62}).pattern
    preview = page.request.get(f"{tab.server}/api/jobs/{tab.job_id()}/files/json").json()
    assert preview["allowances"]["bust_ease"] == 7.62

    # The print file.
    page.get_by_role("link", name="Cut").click()
    page.wait_for_url("**/cut")
    with page.expect_download() as download:
        page.get_by_role("link", name="Print file, A4").click()
    path = tmp_path / "print.pdf"
    download.value.save_as(path)
    pdf = pypdfium2.PdfDocument(path)
    assert len(pdf) > 4
    assert "Recital bodice" in pdf[0].get_textpage().get_text_range()

    # Fit: cut a muslin, find the waist low, look at old under new, apply.
    page.keyboard.press("5")
    page.wait_for_url("**/fit")
    tab.field("Cloth").fill("calico")
    tab.button("Cut muslin 1").click()
    page.get_by_role("button", name="Waist seam lies below the waist", exact=True).click()
    tab.field("Below the waist").fill("1.2")
    page.locator("[data-sum='waist_low.shorten']", has_text="−1.2 cm").wait_for()
    page.get_by_text("trying, not kept yet").wait_for()
    page.get_by_label("The wearer’s words").fill("rides on my hips")
    # Two deeds: the finding, and its remedy.
    with tab.keeping(), tab.keeping():
        tab.button("Record and change the paper").click()
        page.get_by_text("Found on this muslin").wait_for()
    step = tab.state()["recipe"]["steps"][0]
    assert step["params"] == {"amount": -1.2, "between": "bust_waist"}
    assert "rides on my hips" in step["why"]

    # The overlay's distances against the core.
    shortened = evaluator.evaluate(
        Recipe("bodice", readings, overrides={"bust_ease": 7.62}, steps=(Step("x", "change_length", step["params"]),))
    ).pattern
    rows = [row.replace("\u00a0", " ") for row in page.locator("table tbody tr").all_inner_texts()]
    centre = next(row for row in rows if row.startswith("front centre"))
    before, after = (
        next(e.curve.length for e in p.piece("bodice_front").edges if e.lineage == "front.centre")
        for p in (eased, shortened)
    )
    assert "1.2 cm" in centre
    assert f"{show_length(before, unit=Unit.CM)} → {show_length(after, unit=Unit.CM)}" in centre
    assert page.locator("[data-under=bodice_front]").count() == 1
    side = pattern.seams[1].sides[0][0]
    assert span_length(shortened.piece("bodice_front"), side) < span_length(eased.piece("bodice_front"), side)

    # Close, cut the next, be asked whether it helped.
    tab.field("A note to yourself").fill("look again tomorrow")
    tab.button("Close muslin 1").click()
    tab.button("Cut muslin 2").click()
    page.get_by_text("Did it help?").wait_for()
    with tab.keeping():
        page.get_by_label("Waist seam lies below the waist: did it help?").select_option("solved")
    page.get_by_text("Nothing: the pattern is as it was cut.").wait_for()
    page.keyboard.press("l")
    story = page.locator("footer").inner_text().replace("\u00a0", " ")
    for words in ("Muslin 1 cut in calico", "rides on my hips", "Muslin 1 closed: look again tomorrow", "solved"):
        assert words in story

    # Tomorrow: everything is found again from the bench.
    tab.open("/")
    page.get_by_text("Muslin 2 on the table").wait_for()
    page.get_by_role("link", name="Recital bodice").click()
    page.wait_for_url("**/fit")
    page.get_by_role("button", name="Muslin 1", exact=True).click()
    page.get_by_text("look again tomorrow").first.wait_for()


def test_undo_and_redo_by_keys_give_back_the_same_lines(tab):
    tab.new_ticket()
    page = tab.page
    path = page.locator("[data-piece=bodice_front] .paper")
    before = path.get_attribute("d")
    tab.field("Waist ease").fill("6.5")
    with tab.keeping():
        tab.field("Waist ease").press("Enter")
    changed = path.get_attribute("d")
    assert changed != before
    page.locator("svg[role=img]").focus()
    drawn = "d => document.querySelector('[data-piece=bodice_front] .paper').getAttribute('d') === d"
    with tab.keeping():
        page.keyboard.press("Control+z")
    page.wait_for_function(drawn, arg=before)
    with tab.keeping():
        page.keyboard.press("Control+Shift+z")
    page.wait_for_function(drawn, arg=changed)


def test_a_slider_moves_the_lines_while_it_is_moved(tab):
    tab.new_ticket()
    page = tab.page
    path = page.locator("[data-piece=bodice_front] .paper")
    before = path.get_attribute("d")
    page.get_by_role("slider", name="Bust ease").focus()
    with tab.keeping():
        page.keyboard.press("ArrowRight")
        page.wait_for_function(
            "d => document.querySelector('[data-piece=bodice_front] .paper').getAttribute('d') !== d", arg=before
        )
    assert tab.state()["recipe"]["overrides"]["bust_ease"] == pytest.approx(6.1)


def test_a_step_is_switched_off_and_on_again(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("5")
    tab.button("Cut muslin 1").click()
    page.get_by_role("button", name="Shoulder seam falls off the shoulder point", exact=True).click()
    tab.button("Record and change the paper").click()
    page.get_by_text("What does it show?").wait_for()
    page.locator("footer").get_by_text("saved", exact=True).wait_for()
    page.keyboard.press("3")
    page.get_by_role("heading", name="Fit").wait_for()
    tab.settle()
    path = page.locator("[data-piece=bodice_front] .paper")
    changed = path.get_attribute("d")
    page.get_by_text("Shoulder seam: shorten 0.6 cm at the tip").wait_for()
    with tab.keeping():
        page.locator("[data-scope=switch][data-part=control]").click()
        page.wait_for_function(
            "d => document.querySelector('[data-piece=bodice_front] .paper').getAttribute('d') !== d", arg=changed
        )
    assert tab.state()["recipe"]["steps"][0]["on"] is False


def test_a_wearer_is_deleted_for_good_after_being_asked_once_more(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    tab.button("Delete Odile Varn…").click()
    dialog = page.get_by_role("alertdialog")
    dialog.get_by_text("Nothing of it can be brought back").wait_for()
    tab.button("Keep", exact=True).click()
    dialog.wait_for(state="hidden")
    assert tab.state()["wearer"]["name"] == "Odile Varn"
    tab.button("Delete Odile Varn…").click()
    tab.button("Delete everything of Odile Varn").click()
    page.get_by_text("Nothing on the bench yet").wait_for()


def test_the_job_is_carried_out_and_in_through_the_screen(tab, tmp_path):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("7")
    with page.expect_download() as download:
        page.get_by_role("link", name="Whole job, JSON").click()
    path = tmp_path / "job.json"
    download.value.save_as(path)
    tab.open("/")
    page.locator("input[type=file]").set_input_files(path)
    page.wait_for_url("**/draft*")
    tab.open("/")
    page.get_by_text("for Odile Varn").nth(1).wait_for()


def test_remedies_are_tried_at_once_and_laid_over_each_other(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("5")
    tab.button("Cut muslin 1").click()
    page.locator(".kinds").get_by_text("Waist seam lies below the waist").click()
    remedies = page.locator(".remedy")
    for n in (0, 1):
        remedies.nth(n).get_by_text("waist most, by 1.0 cm. Nothing disagrees that agreed.").wait_for()
    beneath = page.locator("[data-under=bodice_back]")
    assert beneath.count() == 1, "the muslin as it was cut"
    tab.button("Lay them over each other").click()
    page.locator(".legend").get_by_text("raise the seam on the same shape").wait_for()
    beneath.nth(1).wait_for(state="attached")
    assert beneath.count() == 2
    assert len({beneath.nth(n).get_attribute("d") for n in (0, 1)}) == 2
    other = beneath.nth(1).get_attribute("d")
    remedies.nth(1).click()
    page.locator(".legend").get_by_text("shorten between bust and waist").wait_for()
    page.wait_for_function(
        "d => document.querySelector('[data-piece=bodice_back] .paper').getAttribute('d') === d", arg=other
    )
    tab.button("Show only the chosen one").click()
    page.wait_for_function("document.querySelectorAll('[data-under=bodice_back]').length === 1")
