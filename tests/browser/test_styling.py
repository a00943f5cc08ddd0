"""Style and Check in the browser: garments built by pointing, the recipe edited, findings fixed and accepted, seams walked."""

import json
import time

import pytest

pytestmark = pytest.mark.django_db(transaction=True)

BODY = {
    "bust_girth": "92",
    "waist_girth": "74",
    "hip_girth": "98",
    "height": "168",
    "high_bust_girth": "87",
}
UPPER = {symbol: text for symbol, text in BODY.items() if symbol != "hip_girth"}


def stage(page, name):
    page.get_by_role("link", name=name).first.click()
    page.locator("[data-piece]").first.wait_for()


def point_at(page, label):
    """Choose a thing from the list beside the table, as one does without a pointer."""
    page.get_by_label("Point at the table, or choose").select_option(label=label)
    page.locator(".offers li").first.wait_for()


def choose(tab, words):
    tab.page.get_by_role("button", name=words, exact=True).click()
    tab.page.locator("form.step").wait_for()


def keep(tab):
    with tab.keeping():
        tab.page.get_by_role("button", name="Keep", exact=False).filter(has_text="Keep th").click()
    tab.page.locator("form.step").wait_for(state="detached")


def add(tab, thing, words, **amounts):
    point_at(tab.page, thing)
    choose(tab, words)
    for label, text in amounts.items():
        field = (
            tab.page.locator("form.step")
            .get_by_label(label.replace("_", " "), exact=False)
            .and_(tab.page.locator("input.field"))
        )
        field.first.fill(text)
        field.first.press("Tab")
        tab.settle()
    keep(tab)


def steps(tab):
    return [(s["kind"], s["params"]) for s in tab.state()["recipe"]["steps"]]


def pieces(page):
    return set(page.locator("[data-piece]").evaluate_all("es => es.map(e => e.dataset.piece)"))


def test_a_dart_is_pointed_at_moved_to_the_shoulder_and_the_step_edited_in_place(tab):
    tab.new_ticket("Shell top", blocks="bodice", **UPPER)
    page = tab.page
    stage(page, "Style")
    page.get_by_text("this is the block as drafted").wait_for()
    page.locator('[data-dart="front.bust_dart"]').click()
    page.get_by_role("button", name="Move it to the front shoulder", exact=True).click()
    page.locator("form.step").get_by_text("Move the front bust dart to the front shoulder").wait_for()
    page.get_by_text("trying, not kept yet").wait_for()
    assert steps(tab) == []
    keep(tab)
    ((kind, params),) = steps(tab)
    assert kind == "move_dart"
    assert params["to"]["along"] == "front.shoulder"
    page.locator("[data-step]").get_by_role("button", name="Move the front bust dart").first.click()
    # The place has its own field once the garment was measured: then the share is the second of three.
    page.locator("form.step input.field").nth(2).wait_for()
    share = page.locator("form.step input.field").nth(1)
    share.fill("50")
    share.press("Tab")
    page.locator("form.step").get_by_text("Move 50 % of the front bust dart").wait_for()
    keep(tab)
    assert steps(tab)[0][1]["share"] == 0.5
    page.get_by_label("Undo").click()
    page.get_by_text("Move the front bust dart to the front shoulder").first.wait_for()


@pytest.mark.parametrize("by", ["enter", "button"])
def test_an_amount_typed_last_is_in_the_step_that_is_kept(tab, by):
    """The number is still being read when the step is kept: nothing typed is left behind."""
    tab.new_ticket("Shell top", blocks="bodice", **UPPER)
    page = tab.page
    page.route("**/api/numbers", lambda route: (time.sleep(0.4), route.continue_()))
    stage(page, "Style")
    point_at(page, "Bodice front: front side")
    choose(tab, "Add or take at the side seams")
    amount = page.locator("form.step input.field").first
    amount.fill("1 1/4 in")
    with tab.keeping():
        if by == "enter":
            amount.press("Enter")
        else:
            tab.button("Keep this step").click()
    assert 3.175 in steps(tab)[0][1].values()
    page.locator("[data-step]").get_by_role("button").first.click()
    amount.fill("a little")
    tab.button("Keep the change").click()
    page.get_by_text("“a little” is not a length").wait_for()
    assert len(steps(tab)) == 1 and 3.175 in steps(tab)[0][1].values()


def test_an_armhole_princess_front_and_back_with_a_zip(tab):
    tab.new_ticket("Princess top", blocks="bodice", **UPPER)
    page = tab.page
    stage(page, "Style")
    add(tab, "Bodice front: front armhole", "Princess line from here")
    assert len(pieces(page)) == 3
    add(tab, "Bodice back: back armhole", "Princess line from here")
    assert len(pieces(page)) == 4
    stage(page, "Check")
    page.get_by_text("The princess front seam matches").wait_for()
    page.get_by_text("The princess back seam matches").wait_for()
    page.get_by_text("The notches of the princess front seam meet").wait_for()


def test_a_bishop_sleeve_with_its_cuff_follows_a_later_edit(tab):
    tab.new_ticket("Bishop blouse", blocks="bodice_sleeve", **UPPER)
    page = tab.page
    stage(page, "Style")
    add(tab, "Sleeve: sleeve hem", "Add fullness here, stopping at the elbow", added_to_the_edge="14", longer_at="1.5")
    add(tab, "Sleeve: sleeve hem", "Add: cuff", so_many_times="0.6")
    cuff = page.locator("[data-piece$='.cuff'] .paper").get_attribute("d")
    assert [kind for kind, _ in steps(tab)] == ["spread_piece", "add_band"]
    page.get_by_role("heading", name="Follow worked").wait_for()
    page.get_by_role("button", name="Spread the sleeve hem").first.click()
    field = page.locator("form.step").get_by_label("added to the edge", exact=False).and_(page.locator("input.field"))
    field.fill("20")
    field.press("Tab")
    page.locator("form.step").get_by_text("add 20 cm").wait_for()
    keep(tab)
    tab.settle()
    assert page.locator("[data-piece$='.cuff'] .paper").get_attribute("d") != cuff, "the cuff follows its edge"


def test_a_high_low_skirt_in_inches(tab):
    tab.new_ticket("Evening skirt", blocks="skirt", **{k: BODY[k] for k in ("waist_girth", "hip_girth", "height")})
    page = tab.page
    page.get_by_text("inches", exact=True).click()
    stage(page, "Style")
    add(tab, "Skirt front: skirt front side", "Flare the side seams to the hem", at_the_hem="2 1/2")
    add(
        tab,
        "Skirt front: skirt front hem",
        "High–low hem",
        at_the_centre_front="-7",
        at_the_side="-1 1/2",
        at_the_centre_back="5 1/2",
    )
    (_, flare), (_, hem) = steps(tab)
    assert flare["hem"] == pytest.approx(2.5 * 2.54)
    assert (hem["front"], hem["side"], hem["back"]) == pytest.approx((-7 * 2.54, -1.5 * 2.54, 5.5 * 2.54))


def test_what_depends_on_a_step_is_shown_before_it_is_taken_out(tab):
    tab.new_ticket("Gathered top", blocks="bodice", **UPPER)
    page = tab.page
    stage(page, "Style")
    add(tab, "Bodice front: front bust dart", "Move half of it to the front shoulder")
    point_at(page, "Bodice front: bust dart")
    choose(tab, "Turn into gathers")
    keep(tab)
    page.get_by_text("acts on step 1").wait_for()
    page.get_by_role("button", name="Take out: Move 50 %").click()
    warning = page.get_by_role("alertdialog")
    warning.get_by_text("could not act any more").wait_for()
    warning.get_by_text("There is no", exact=False).wait_for()
    warning.get_by_role("button", name="Keep it").click()
    assert len(steps(tab)) == 2
    page.get_by_role("button", name="Take out: Move 50 %").click()
    with tab.keeping():
        page.get_by_role("button", name="Remove it anyway").click()
    page.get_by_text("Skipped:", exact=False).wait_for()
    assert [kind for kind, _ in steps(tab)] == ["convert_dart"]


def test_a_finding_is_fixed_with_one_click_and_another_accepted_with_a_reason(tab):
    tab.new_ticket("Wedge dress", blocks="dress", **{**UPPER, "hip_girth": BODY["hip_girth"]})
    page = tab.page
    stage(page, "Style")
    add(tab, "Bodice front: front armhole", "Lower or raise the armhole", lower_at="3")
    stage(page, "Check")
    seam = page.locator("li.fails").filter(has_text="longer than meant")
    seam.wait_for()
    with tab.keeping():
        seam.get_by_role("button", name="Re-cap the sleeve by width").click()
    seam.wait_for(state="detached")
    waist = page.locator("li.warns").filter(has_text="waist")
    waist.get_by_role("button", name="Accept…").click()
    page.get_by_label("Why it is meant").fill("laced at the fitting")
    with tab.keeping():
        page.get_by_role("button", name="Accept", exact=True).click()
    page.get_by_text("Accepted: laced at the fitting").wait_for()
    assert [kind for kind, _ in steps(tab)] == ["change_armhole", "recap_sleeve", "accept"]


def test_the_sleeve_is_walked_into_its_armhole_by_key(tab):
    tab.new_ticket(blocks="bodice_sleeve", **UPPER)
    page = tab.page
    stage(page, "Check")
    page.locator("aside").get_by_text("Walk", exact=True).click()
    page.locator("[data-walk=cap]").wait_for(state="attached")
    along = page.locator("label[for=along]")
    before = along.inner_text()
    for _ in range(10):
        page.keyboard.press("ArrowRight")
    assert along.inner_text() != before
    notches = page.locator("aside tbody tr")
    assert notches.count() == 2
    first = notches.nth(0).locator("td").all_inner_texts()
    assert first[1] == first[2], "the front notches meet"
    page.locator("aside").get_by_text("Ease on the body", exact=True).click()
    page.locator("aside tbody tr", has_text="Bust").first.wait_for()
    page.locator("path.at").nth(5).wait_for(state="attached")


def test_lines_of_another_job_are_taken_over(tab):
    tab.new_ticket("First top", blocks="bodice", **UPPER)
    stage(tab.page, "Style")
    add(tab, "Bodice front: front neck", "V neckline")
    tab.new_ticket("Second top", blocks="bodice", **UPPER)
    page = tab.page
    stage(page, "Style")
    page.get_by_role("button", name="Lay another pattern over this one").click()
    page.get_by_label("Whose lines").select_option(index=1)
    page.get_by_label("Laid together at").select_option(label="front shoulder tip")
    page.get_by_label("front neck").check()
    page.get_by_role("button", name="Take these lines").click()
    keep(tab)
    ((kind, params),) = steps(tab)
    assert kind == "combine_lines"
    assert [line["along"] for line in params["lines"]] == ["front.neck"]
    assert json.dumps(params["source"])


def test_a_place_is_drawn_along_its_line_on_the_table(tab):
    tab.new_ticket("Tied top", blocks="bodice", **UPPER)
    stage(tab.page, "Style")
    point_at(tab.page, "Bodice front: front side")
    choose(tab, "Add: ties, here in the front side")
    tab.settle()
    away = tab.page.locator(".place input.field")
    begun = float(away.input_value())
    assert begun > 5
    spot = tab.page.locator("[data-place]").bounding_box()
    x, y = spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2
    tab.page.mouse.move(x, y)
    tab.page.mouse.down()
    tab.page.mouse.move(x + 6, y + 24, steps=4)
    tab.page.mouse.up()
    tab.settle()
    # Down the side, nearer to the waist; off the line is the nearest place on it.
    now = float(away.input_value())
    assert 0 < now < begun - 1
    # The piece that is new came in sight once, and from then on the table held still.
    seen = tab.page.locator("svg[role=img]").get_attribute("viewBox")
    away.fill("9")
    away.press("Tab")
    tab.settle()
    assert tab.page.locator("svg[role=img]").get_attribute("viewBox") == seen
    moved = tab.page.locator("[data-place]").bounding_box()
    assert moved["y"] != pytest.approx(spot["y"], abs=0.5)
    keep(tab)
    ((_, params),) = steps(tab)
    assert params["at"]["fraction"] == pytest.approx(9 / 20.4, abs=0.04)


def test_a_step_begins_with_round_fractions_where_inches_are_read(tab):
    tab.new_ticket("Tied top in inches", blocks="bodice", **UPPER)
    tab.page.get_by_text("inches", exact=True).click()
    stage(tab.page, "Style")
    point_at(tab.page, "Bodice front: front side")
    choose(tab, "Add: ties, here in the front side")
    form = tab.page.locator("form.step")
    assert form.get_by_label("finished length of each tie", exact=True).input_value() == "25½"
    assert form.get_by_label("finished width", exact=True).input_value() == "1⅛"
