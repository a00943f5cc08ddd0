"""Two rounds on a styled dress, in inches: with busy hands by keyboard, a photo, one half, at odds, an amended step, the story."""

import pytest

from izett.units import Unit, show_length
from studio import demo
from studio.demo_photo import photo_of_a_pinch
from studio.models import Job, MeasureSheet
from studio.workroom import recipe_document

pytestmark = pytest.mark.django_db(transaction=True)


def spread_of(job):
    """Return by how much the sleeve of the demo's dress is spread."""
    return next(step["params"]["amount"] for step in job["recipe"]["steps"] if step["kind"] == "spread_piece")


def entered(tab, text, *, then="Enter"):
    """Type into what has the focus, and go on."""
    tab.page.keyboard.press("Control+a")
    tab.page.keyboard.type(text)
    tab.page.wait_for_timeout(250)
    tab.page.keyboard.press(then)


def noted(tab, words, *, amount):
    """Look for a finding at the movement that is made, by word, and note it by keyboard; it lands on the list."""
    page = tab.page
    page.get_by_label("What does it show?").wait_for()
    page.keyboard.type(words)
    page.locator(".offered kbd").wait_for()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Note it").wait_for()
    with tab.keeping():
        entered(tab, amount)
    page.locator(".noted").first.wait_for()


#: The first remedy of a lower shoulder, as it is called among the sheets on trial.
LOWERED = "lower tip and armhole on that half, and its side at the waist by the same"


def test_two_rounds_on_a_styled_dress_in_inches(tab, tmp_path):
    job = demo.chamber_dress()
    picture = tmp_path / "pinch.png"
    picture.write_bytes(photo_of_a_pinch())
    page = tab.page
    tab.open(f"/jobs/{job.id}/fit")
    page.get_by_text("inches", exact=True).click()
    spread = spread_of(tab.state())

    # By keyboard alone: cut, prepare, fit.
    tab.field("Cloth").focus()
    page.keyboard.type("calico")
    with tab.keeping():
        page.keyboard.press("Enter")
    page.get_by_role("button", name="Fit with busy hands").focus()
    page.keyboard.press("Enter")
    page.get_by_label("Cloth of the final’s weight", exact=False).focus()
    with tab.keeping():
        page.keyboard.press("Space")
    page.get_by_label("Pins counted in").focus()
    with tab.keeping():
        entered(tab, "12")
    page.keyboard.press("ArrowDown")
    noted(tab, "one shoulder lower", amount="1/4")
    with tab.keeping():
        page.keyboard.press("ArrowDown")
    page.get_by_role("heading", name="sit").wait_for()
    assert tab.state()["rounds"][0]["watched"] == ["stand"]
    page.keyboard.press("Escape")

    state = tab.state()
    (lower,) = state["rounds"][0]["findings"]
    assert (lower["side"], lower["movement"], lower["given"]["lower"]) == ("left", "stand", pytest.approx(0.635))
    assert state["rounds"][0]["prepared"] == ["cloth"]

    # At the table: a photo beside it, and its remedy on the one half.
    with tab.keeping():
        page.get_by_label("Photo from a file").first.set_input_files(picture)
    page.get_by_role("button", name="Photo 1 of", exact=False).click()
    page.get_by_role("dialog").locator("img.whole").wait_for()
    page.get_by_role("button", name="Close", exact=True).click()
    page.get_by_role("button", name="Change the paper").click()
    page.get_by_text("Nothing disagrees that agreed", exact=False).first.wait_for()
    with tab.keeping():
        tab.button("Keep and change the paper").click()
        page.get_by_text("What does it show?").wait_for()
    step = tab.state()["recipe"]["steps"][-1]
    assert (step["half"], step["section"]) == ("left", "fit")

    # A remedy that amends the style's own step: the sleeve is spread more, no step is added.
    before = len(tab.state()["recipe"]["steps"])
    page.get_by_label("Look for a finding").fill("does not look full")
    page.locator(".kinds button").first.click()
    page.locator(".remedy").first.wait_for()
    with tab.keeping(), tab.keeping():
        tab.button("Record and change the paper").click()
        page.get_by_text("What does it show?").wait_for()
    assert len(tab.state()["recipe"]["steps"]) == before
    assert spread_of(tab.state()) > spread

    # Two findings of which one undoes the other are named.
    for words in ("Sleeve too short", "Sleeve too long"):
        page.get_by_label("Look for a finding").fill("sleeve")
        page.get_by_role("button", name=words, exact=True).click()
        page.locator(".remedy").first.wait_for()
        with tab.keeping(), tab.keeping():
            tab.button("Record and change the paper").click()
            page.get_by_text("What does it show?").wait_for()
    page.get_by_text("At odds").first.wait_for()

    # The muslin is put away once the pins are out.
    tab.expect_complaint("409")
    tab.button("Close muslin 1").click()
    page.get_by_text("12 pins went into muslin 1").wait_for()
    tab.button("Understood").click()
    with tab.keeping():
        page.get_by_label("Pins counted out").fill("12")
        page.get_by_label("Pins counted out").press("Enter")
    with tab.keeping():
        tab.button("Close muslin 1").click()
    with tab.keeping():
        tab.button("Cut muslin 2").click()

    # Asked again by key; what proved right of her body is kept with her.
    page.get_by_role("button", name="Fit with busy hands").click()
    page.keyboard.press("ArrowDown")
    page.get_by_role("heading", name="One shoulder is lower", exact=False).wait_for()
    with tab.keeping():
        page.keyboard.press("1")
    page.keyboard.press("Escape")
    with tab.keeping():
        tab.button("Keep with Marit Sollendine").first.click()

    # Sheets of tracing paper, by key, held at a corner.
    tab.button("Tracing paper").click()
    page.locator("table.figures tr").first.wait_for()
    with page.expect_response("**/papers") as held:
        page.get_by_label("Held on the").select_option(index=1)
    assert held.value.ok
    page.get_by_label("pinned at").wait_for()
    with page.expect_response("**/papers") as tried:
        page.get_by_role("combobox", name="Over").select_option(label=f"trial: {LOWERED}")
    assert tried.value.ok
    page.get_by_role("img", name=f"trial: {LOWERED}, laid over").wait_for()
    page.keyboard.press("Escape")
    page.get_by_text("Muslin 2", exact=True).first.wait_for()

    # The hours, and the story.
    page.keyboard.press("l")
    with tab.keeping():
        tab.field("Time worked").fill("1:30")
        tab.button("Note it").click()
    with tab.keeping():
        page.get_by_label("Look again tomorrow").fill("the left sleeve")
        page.get_by_label("Look again tomorrow").press("Enter")
    page.get_by_role("link", name="The whole story, by muslin").click()
    page.get_by_role("heading", name="Muslin 1").wait_for()
    story = page.locator("div.story").inner_text().replace("\u00a0", " ")
    for words in (
        "1 h 30 min",
        "left half only",
        show_length(0.635, unit=Unit.INCH),
        "muslin 2: solved",
        "12 pins in, 12 out",
    ):
        assert words in story, words
    assert " cm" not in story
    assert page.locator("div.story img").count() == 1
    assert tab.state()["look_again"] == "the left sleeve"


def test_another_sheet_is_laid_under_before_it_is_taken(tab):
    demo.concert_top()
    job = Job.objects.get()
    page = tab.page
    tab.open(f"/jobs/{job.id}/measure?view=time")
    page.get_by_role("link", name="Lay it under first").click()
    page.get_by_role("heading", name="How far the lines lie apart").wait_for()
    assert page.locator("table.figures tr").count() > 4
    assert page.locator("[data-under]").count() >= 2
    page.keyboard.press("[")
    page.wait_for_url("**under=muslin-2**")
    page.keyboard.press("]")
    page.wait_for_url("**under=sheet-2**")
    with tab.keeping():
        tab.button("Draft from sheet 2").click()
    assert tab.state()["sheet"]["number"] == 2
    assert MeasureSheet.objects.get(wearer=job.wearer, number=1).readings.count() > 10
    assert recipe_document(Job.objects.get(pk=job.pk).head.document).steps, "all steps are kept"


def test_a_hostile_photo_is_refused_in_words_and_the_fitting_goes_on(tab, tmp_path):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("5")
    tab.button("Cut muslin 1").click()
    page.locator(".kinds").get_by_text("Waist seam lies below the waist").click()
    with tab.keeping():
        tab.button("Record only").click()
    bad = tmp_path / "x.png"
    bad.write_bytes(b'<svg xmlns="http://www.w3.org/2000/svg"/>')
    tab.expect_complaint("422")
    page.get_by_label("Photo from a file").set_input_files(bad)
    page.get_by_text("This is an SVG drawing").wait_for()
    assert tab.state()["rounds"][0]["findings"][0]["photos"] == []


def test_a_draping_session_is_the_second_round_of_a_styled_dress_by_keyboard(tab):
    job = demo.chamber_dress()
    page = tab.page
    tab.open(f"/jobs/{job.id}/fit")
    with tab.keeping():
        tab.button("Cut muslin 1").click()
    with tab.keeping():
        tab.button("Close muslin 1").click()
    with tab.keeping():
        tab.button("Cut muslin 2").click()
    tab.button("A line was draped anew").focus()
    page.keyboard.press("Enter")
    tab.field("Piece").select_option(index=1)
    lines = tab.field("Line")
    named = [option.get_attribute("value") for option in lines.locator("option").all()]
    neck = next(name for name in named if name.endswith("front.neck"))
    lines.select_option(neck)
    asked = {"piece": tab.field("Piece").input_value(), "line": neck}
    guides = page.request.get(f"{tab.server}/api/jobs/{job.id}/guides", params=asked).json()
    (part,) = guides["parts"]
    (ax, ay), (bx, by) = part["starts"], part["ends"]
    tab.field("Next mark, across").focus()
    for share in (0.2, 0.4, 0.6, 0.8):
        for value in (ax + (bx - ax) * share, ay + (by - ay) * share - 4.0 * share * (1 - share)):
            page.keyboard.type(f"{value:.1f}")
            page.keyboard.press("Enter")
        page.locator("[data-marked]").nth(round(share * 5) - 1).wait_for()
    page.get_by_text("Draw the line of the finished pattern along the new marks").wait_for()
    # The marks outlive the page until they are recorded.
    tab.open(f"/jobs/{job.id}/fit")
    tab.button("A line was draped anew").click()
    tab.field("Piece").select_option(asked["piece"])
    tab.field("Line").select_option(neck)
    page.locator("[data-marked]").nth(3).wait_for()
    page.get_by_label("Draw the line of the finished pattern along the new marks").check()
    tab.settle()
    with tab.keeping():
        tab.button("Record and change the paper").click()
    tab.settle()
    state = tab.state()
    (finding,) = state["rounds"][1]["findings"]
    assert finding["applied"] and len(finding["marked"]["marks"]) == 4
    assert state["recipe"]["steps"][-1]["kind"] == "redraw_edge"
    under = page.locator(f"[data-under='{asked['piece']}']").get_attribute("d")
    assert under, "the old line lies under the new"
    moved = page.get_by_role("row").filter(has_text="front neck")
    assert "cm" in moved.first.inner_text()
    with tab.keeping():
        tab.button("Close muslin 2").click()
    with tab.keeping():
        tab.button("Cut muslin 3").click()
    page.get_by_role("heading", name="Did it help?").wait_for()
    page.get_by_text("A line was draped anew").first.wait_for()
