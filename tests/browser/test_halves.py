"""Left and right in the browser: a finding on one side, a step put under the style and back, halves drafted apart."""

from playwright.sync_api import expect

PIECES = "es => es.map(e => e.dataset.piece)"


def pieces(page):
    return set(page.locator("[data-piece]").evaluate_all(PIECES))


def one_sided(tab):
    """A shoulder that falls off the point on the right side only, recorded with its remedy."""
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("5")
    tab.button("Cut muslin 1").click()
    page.get_by_role("button", name="Shoulder seam falls off the shoulder point", exact=True).click()
    page.locator("label", has_text="Side").locator("select").select_option("right")
    page.get_by_text("The paper changes on the right half only").wait_for()
    # What it would become is being drawn: a button that moves meanwhile is not hit.
    page.wait_for_load_state("networkidle")
    with tab.keeping():
        tab.button("Record and change the paper").click()
    page.locator("[data-piece='right:bodice_back']").wait_for()


def test_a_finding_on_the_right_changes_the_right_half_and_says_so(tab):
    one_sided(tab)
    page = tab.page
    assert pieces(page) == {"bodice_front", "bodice_back", "right:bodice_back"}
    page.get_by_role("row", name="right back shoulder").first.wait_for()
    assert page.get_by_role("row", name="left", exact=False).count() == 0
    [step] = tab.state()["recipe"]["steps"]
    assert (step["section"], step["half"]) == ("fit", "right")
    page.keyboard.press("6")
    page.get_by_text("Bodice front").first.wait_for()
    assert pieces(page) == {"bodice_front", "bodice_back", "right:bodice_back"}


def test_a_step_is_put_into_the_style_and_back_after_what_it_does_is_shown(tab):
    one_sided(tab)
    page = tab.page
    page.keyboard.press("3")
    page.get_by_role("heading", name="Fit what a fitting").wait_for()
    page.get_by_role("button", name="To Style…").click()
    page.get_by_role("alertdialog").get_by_text("Worked after the fitting").wait_for()
    with tab.keeping():
        page.get_by_role("button", name="Put it in Style").click()
    page.get_by_role("heading", name="Style what makes").wait_for()
    assert tab.state()["recipe"]["steps"][0]["section"] == "style"
    page.keyboard.press("2")
    page.locator("[data-piece=bodice_back]").wait_for()
    expect(page.locator("[data-piece]")).to_have_count(2)
    page.keyboard.press("u")
    page.locator("[data-piece='right:bodice_back']").wait_for()
    page.get_by_role("button", name="Show the block under the style").wait_for()
    page.keyboard.press("3")
    page.get_by_role("button", name="To Fit…").click()
    with tab.keeping():
        page.get_by_role("button", name="Put it in Fit").click()
    assert tab.state()["recipe"]["steps"][0]["section"] == "fit"


def test_measures_taken_left_and_right_draft_the_halves_apart_on_wish(tab):
    tab.begin_measuring()
    page = tab.page
    for symbol, text in {"bust_girth": "92", "waist_girth": "74", "height": "168", "high_bust_girth": "87"}.items():
        tab.measure(symbol, text)
    page.locator("[data-measure=shoulder_length]").focus()
    page.get_by_label("left and right apart").check()
    tab.measure('"shoulder_length.left"', "12")
    tab.measure('"shoulder_length.right"', "12.8")
    tab.button("Keep the sheet and draft").click()
    page.wait_for_url("**/draft*")
    page.locator("[data-piece]").first.wait_for()
    page.goto(page.url.split("?")[0] + "?panel=block")
    page.get_by_text("12.0 cm left, 12.8 cm right").first.wait_for()
    # The words are there before the draft is.
    expect(page.locator("[data-piece]")).to_have_count(2)
    with tab.keeping():
        page.get_by_role("group", name="Left and right drafted apart").get_by_label("Shoulder", exact=False).check()
    page.get_by_text("Left and right are drafted apart: shoulder length").wait_for()
    expect(page.locator("[data-piece]")).to_have_count(3)
    assert tab.state()["recipe"]["apart"] == ["shoulder_length"]
