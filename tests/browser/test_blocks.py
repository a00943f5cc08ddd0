"""The Draft stage in the browser: blocks together, ease as a whole, schools laid under, sums changed, line by line."""

import re

import pytest

pytestmark = pytest.mark.django_db(transaction=True)

BODY = {"bust_girth": "92", "waist_girth": "74", "hip_girth": "98", "height": "168", "high_bust_girth": "87"}
UPPER = {symbol: text for symbol, text in BODY.items() if symbol != "hip_girth"}
DRESS = {"bodice_front", "bodice_back", "sleeve", "skirt_front", "skirt_back"}


def pieces(page):
    return set(page.locator("[data-piece]").evaluate_all("es => es.map(e => e.dataset.piece)"))


def panel(page, name):
    page.locator("aside").get_by_text(name, exact=True).first.click()


def drawn(page, piece):
    return page.locator(f"[data-piece={piece}] .paper").get_attribute("d")


def until_redrawn(page, piece, before):
    page.wait_for_function(
        "([piece, d]) => document.querySelector(`[data-piece=${piece}] .paper`)?.getAttribute('d') !== d",
        arg=[piece, before],
    )


def lit(page):
    return set(page.locator("path.line.lit").evaluate_all("es => es.map(e => e.nextElementSibling.dataset.line)"))


def test_a_dress_is_drafted_together_and_its_skirt_changed_for_trousers(tab):
    tab.new_ticket("Recital dress", blocks="dress", **BODY)
    page = tab.page
    assert pieces(page) == DRESS
    panel(page, "Block")
    with tab.keeping():
        page.get_by_label("Trousers").check()
    page.locator("[data-piece=trouser_front]").wait_for()
    assert pieces(page) == {"bodice_front", "bodice_back", "sleeve", "trouser_front", "trouser_back"}
    with tab.keeping():
        page.get_by_label("Fitted bodice", exact=True).uncheck()
    page.locator("[data-piece=bodice_front]").wait_for(state="detached")
    assert pieces(page) == {"trouser_front", "trouser_back"}, "the sleeve went with what it stands on"
    assert page.get_by_label("Trousers").is_disabled(), "there is always one block"


def test_one_control_for_all_ease_with_its_levels_under_it(tab):
    tab.new_ticket(blocks="bodice_sleeve", **UPPER)
    page = tab.page
    page.get_by_text("6.0 cm around, 1.5 cm a quarter; usual 5.0 to 8.0 cm.").wait_for()
    with tab.keeping():
        page.locator("aside").get_by_text("loose", exact=True).click()
    page.get_by_text("16.0 cm around, 4.0 cm a quarter; usual 13.0 to 24.0 cm.").wait_for()
    with tab.keeping():
        page.locator("aside").get_by_text("close", exact=True).click()
    with tab.keeping():
        tab.field("Cloth").select_option("knit")
    page.get_by_text("a share of the girth, by the stretch").first.wait_for()
    stretch = tab.field("Stretch, in %")
    stretch.fill("a lot")
    stretch.press("Enter")
    page.get_by_text("“a lot” is not a number").wait_for()
    stretch.fill("200 %")
    stretch.press("Enter")
    page.get_by_text("Enter a value from 0 to 150.").wait_for()
    with tab.keeping():
        stretch.fill("20")
        stretch.press("Enter")
    recipe = tab.state()["recipe"]
    assert (recipe["fit"], recipe["cloth"]) == ("close", {"kind": "knit", "stretch": 20})


def test_another_school_is_laid_under_with_its_distances_and_used(tab):
    tab.new_ticket(**UPPER)
    page = tab.page
    panel(page, "Schools")
    page.get_by_role("button", name="Lay under: Back shoulder with a dart").click()
    page.locator("[data-under=bodice_back]").wait_for()
    rows = page.locator(".difference ol li").all_inner_texts()
    assert rows[0].startswith("back")
    amounts = [float(row.split("\n")[-1].removesuffix("\u00a0cm")) for row in rows]
    assert amounts == sorted(amounts, reverse=True) and amounts[0] > 1
    before = drawn(page, "bodice_back")
    with tab.keeping():
        page.get_by_role("button", name="Use: Back shoulder with a dart").click()
    until_redrawn(page, "bodice_back", before)
    assert page.locator("[data-under=bodice_back]").count() == 0
    assert page.locator("[data-dart='back.shoulder_dart']").count() == 1
    assert tab.state()["recipe"]["schools"] == {"shoulder": "dart"}


def test_a_sum_is_set_with_its_reason_made_a_house_rule_and_put_back(tab):
    tab.new_ticket(**UPPER)
    page = tab.page
    panel(page, "Sums")
    row = page.locator("[data-sum=back_neck_width]")
    row.get_by_role("button", name="Change: Back neck width").click()
    row.get_by_text("The rule: neck girth ÷ 5 − neck width less").wait_for()
    row.get_by_label("Set to").fill("3 in")
    row.get_by_role("button", name="For this job").click()
    row.get_by_text("Write a word on why").wait_for()
    row.get_by_label("Because").fill("our collars sit wide")
    with tab.keeping():
        row.get_by_role("button", name="As a house rule too").click()
    page.locator("[data-sum=back_neck_width].overridden").get_by_text("set for this job").wait_for()
    assert tab.state()["recipe"]["overrides"]["back_neck_width"] == pytest.approx(7.62)
    assert tab.state()["recipe"]["why"]["back_neck_width"] == "our collars sit wide"
    page.get_by_text("House rules (1), for all new jobs").click()
    page.get_by_text("our collars sit wide").first.wait_for()

    tab.new_ticket("another", name="Ilka Tomm", **UPPER)
    panel(page, "Sums")
    house = page.locator("[data-sum=back_neck_width].house")
    house.get_by_text("house rule").wait_for()
    assert tab.sum_value("back_neck_width") == "7.6 cm"
    house.get_by_role("button", name="Change: Back neck width").click()
    with tab.keeping():
        house.get_by_role("button", name="Back to the rule").click()
    page.locator("[data-sum=back_neck_width].computed").wait_for()
    page.get_by_text("House rules (1), for all new jobs").click()
    page.get_by_role("button", name="Drop the house rule: Back neck width").click()
    page.get_by_text("House rules (1)").wait_for(state="detached")


def test_exactly_what_moves_with_a_measure_lights(tab):
    tab.new_ticket(blocks="dress", **BODY)
    page = tab.page
    panel(page, "Sums")
    page.locator("[data-sum=arm_length]").hover()
    page.wait_for_function("() => document.querySelectorAll('path.line.lit').length > 0")
    assert {line.split(".")[0] for line in lit(page)} == {"sleeve"}
    page.locator("[data-sum=hip_girth]").hover()
    page.wait_for_function("() => !!document.querySelector('[data-piece=skirt_front] path.line.lit')")
    assert {line.split("_")[0] for line in lit(page)} == {"skirt"}


def test_the_draft_is_drawn_line_by_line(tab):
    tab.new_ticket(blocks="skirt", **BODY)
    page = tab.page
    everything = page.locator("[data-piece] path.line").count()
    panel(page, "By hand")
    page.locator("section[data-step]").wait_for()
    page.wait_for_function("n => document.querySelectorAll('[data-piece] path.line').length < n", arg=everything)
    steps = int(page.locator("aside").get_by_text(" of ").first.inner_text().split(" of ")[1])
    seen = [page.locator("[data-piece] path.line").count()]
    for _ in range(steps - 1):
        page.get_by_role("button", name="The next line").click()
        seen.append(page.locator("[data-piece] path.line").count())
    assert seen == sorted(seen) and len(set(seen)) > 3, "lines are only added"
    assert seen[-1] == everything
    assert page.get_by_role("button", name="The next line").is_disabled()
    panel(page, "Ease")
    assert page.locator("[data-piece] path.line").count() == everything


def test_a_shape_is_pulled_on_the_table(tab):
    tab.new_ticket(**UPPER)
    page = tab.page
    before = drawn(page, "bodice_front")
    box = page.locator("[data-handle=front_armhole_scoop]").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 4, y + 4, steps=4)
    until_redrawn(page, "bodice_front", before)
    with tab.keeping():
        page.mouse.up()
    scoop = tab.state()["recipe"]["overrides"]["front_armhole_scoop"]
    assert 0.5 <= scoop <= 0.8 and scoop != 0.66
    assert "pulled to" in tab.state()["log"][-1]["text"]


def test_a_draft_that_cannot_be_made_says_why_and_what_to_take_again(tab):
    tab.expect_complaint("422")
    tab.begin_measuring(blocks="bodice_sleeve")
    page = tab.page
    for symbol, text in {**UPPER, "bicep_girth": "50", "elbow_girth": "36"}.items():
        tab.measure(symbol, text)
    tab.button("Keep the sheet and draft").click()
    page.wait_for_url("**/draft*")
    page.get_by_text("The arm of 50 cm is too large for an armhole of").wait_for()
    page.get_by_text("use a two-piece or gusset sleeve").wait_for()
    page.get_by_text("There is no draft yet. An easier fit gives more room").wait_for()
    page.get_by_role("link", name="Retake: ").first.click()
    page.wait_for_url("**/measure*")


def test_inches_with_fractions_in_every_panel(tab):
    tab.page.add_init_script("localStorage.setItem('izett-unit', 'in')")
    tab.write_ticket(
        blocks="bodice_sleeve", bust_girth="36 1/4", waist_girth="29 1/8", height="66", high_bust_girth="34 1/4"
    )
    page = tab.page
    page.get_by_text("2⅜ in around, 9⁄16 in a quarter; usual 1 15⁄16 to 3⅛ in.").or_(
        page.get_by_text("2⅜ in around", exact=False)
    ).first.wait_for()
    assert page.locator("aside").get_by_text(" cm", exact=False).count() == 0
    with tab.keeping():
        tab.field("Ease at the upper arm").fill("2 1/4")
        tab.field("Ease at the upper arm").press("Enter")
    assert tab.state()["recipe"]["overrides"]["bicep_ease"] == pytest.approx(5.715)
    panel(page, "Sums")
    row = page.locator("[data-sum=back_neck_width]")
    row.get_by_role("button", name="Change: Back neck width").click()
    row.get_by_label("Set to").fill("2 7/8")
    row.get_by_label("Because").fill("a wide neck")
    with tab.keeping():
        row.get_by_label("Because").press("Enter")
    assert tab.sum_value("back_neck_width") == "2⅞ in"
    page.get_by_text("2 values are set by you.").wait_for()
    assert tab.state()["recipe"]["overrides"]["back_neck_width"] == pytest.approx(2.875 * 2.54)
    with tab.keeping():
        tab.button("Put all back").click()
    assert tab.state()["recipe"]["overrides"] == {}


def test_the_panels_are_worked_by_keyboard(tab):
    tab.new_ticket(blocks="bodice_sleeve", **UPPER)
    page = tab.page
    panel(page, "Block")
    sleeve = page.get_by_role("checkbox", name="Sleeve set into fitted bodice or hip-length torso")
    sleeve.focus()
    with tab.keeping():
        page.keyboard.press("Space")
    assert tab.state()["recipe"]["also"] == []
    panel(page, "Schools")
    use = page.get_by_role("button", name="Use: Back shoulder with a dart")
    use.focus()
    with tab.keeping():
        page.keyboard.press("Enter")
    assert tab.state()["recipe"]["schools"] == {"shoulder": "dart"}
    panel(page, "By hand")
    slider = page.get_by_label("Where the drawing stands")
    slider.focus()
    page.keyboard.press("End")
    page.wait_for_function("() => !document.querySelector('[aria-label=\"The next line\"]:not([disabled])')")
    page.keyboard.press("Home")
    page.get_by_role("button", name="The line before").and_(page.locator("[disabled]")).wait_for()
    page.get_by_role("button", name="The next line").focus()
    with tab.keeping():
        page.keyboard.press("Control+z")
    assert tab.state()["recipe"]["schools"] == {}


def test_two_sliders_moved_one_right_after_the_other_are_both_kept(tab):
    tab.new_ticket(**UPPER)
    page = tab.page
    thumbs = page.locator("aside [role=slider]")
    thumbs.nth(1).wait_for()

    def slide_both():
        for number in range(2):
            thumbs.nth(number).focus()
            page.keyboard.press("ArrowRight")

    with tab.keeping(deeds=2):
        slide_both()
    first = tab.state()["recipe"]["overrides"]
    assert sorted(first) == ["bust_ease", "waist_ease"]
    # While the server is away both wait, and the page says so.
    tab.expect_complaint("ERR_FAILED")
    page.route("**/recipe", lambda route: route.abort())
    slide_both()
    again = page.get_by_role("button", name=re.compile("Do it again: Bust ease: .*; Waist ease: "))
    again.wait_for()
    page.unroute("**/recipe")
    with tab.keeping(deeds=2):
        again.press("Enter")
    then = tab.state()["recipe"]["overrides"]
    assert all(then[symbol] > first[symbol] for symbol in first)


def test_a_block_whose_measures_are_missing_is_refused_where_it_is_asked_for(tab):
    tab.expect_complaint("422")
    tab.new_ticket(**UPPER)
    page = tab.page
    panel(page, "Block")
    page.get_by_role("checkbox", name="Trousers").click()
    page.get_by_text("The block “trousers” needs hip girth.").first.wait_for()
    assert tab.state()["recipe"]["also"] == [], "nothing was kept"
    page.get_by_role("button", name="Understood").click()
    assert not page.get_by_role("checkbox", name="Trousers").is_checked()
