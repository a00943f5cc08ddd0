"""The Measure stage as its user works it: a whole sheet by keyboard, guided taking, pointing, sheets over time, files."""

import re
from pathlib import Path
from random import Random

import pypdfium2
import pytest

from izett.measuring.measure import measures, read_measure
from izett.units import Unit
from tests.core.measuring.completed import whole_sheets

pytestmark = pytest.mark.django_db(transaction=True)

FRACTIONS = ("", " 1/2", " 1/4", " 3/8", " 1/8", " 5/8", "½", "¾", "-7/8")


def in_inches(cm, random):
    """A length as one types it from an inch tape: whole inches and a fraction in one of its writings."""
    return f"{int(cm / 2.54)}{random.choice(FRACTIONS)}"


def jobs_of(tab):
    tab.open("/")
    hrefs = [a.get_attribute("href") for a in tab.page.locator("a.ticket").all()]
    return [re.search(r"/jobs/[^/?]+", href)[0] for href in hrefs]


def test_a_whole_sheet_is_typed_by_keyboard_alone_in_inches_and_comes_back_exact(tab):
    page = tab.page
    tab.begin_measuring()
    page.get_by_text("inches", exact=True).click()
    page.get_by_role("button", name=f"All {len(measures())} measures").press("Enter")
    order = page.locator("[data-measure]").evaluate_all("es => es.map(e => e.dataset.measure)")
    assert len(order) == len(measures()) >= 45
    random = Random(45)
    body = next(b for b in whole_sheets() if 90 < b["bust_girth"] < 96)
    typed = {symbol: in_inches(body[symbol], random) for symbol in order if symbol in body}
    typed |= {"cup": "D"}
    assert len(typed) >= 45
    page.locator(f"[data-measure={order[0]}]").focus()
    for symbol in order:
        assert page.evaluate("document.activeElement.dataset.measure") == symbol
        page.keyboard.type(typed.get(symbol, ""))
        page.keyboard.press("Enter")
    page.locator(".figures", has_text=str(len(typed))).first.wait_for()
    page.locator("#keep:focus").wait_for()
    page.keyboard.press("Enter")
    page.wait_for_url("**/draft*")
    kept = {r["symbol"]: r for r in tab.state()["sheet"]["readings"]}
    assert kept.keys() == typed.keys()
    for symbol, text in typed.items():
        assert kept[symbol]["text"] == text
        assert kept[symbol]["cm"] == read_measure(symbol, text, unit=Unit.INCH).cm
    # On the page again, as they were typed.
    page.get_by_role("link", name="Measure").click()
    page.locator("[data-measure=bust_girth]").wait_for()
    shown = {e.get_attribute("data-measure"): e.input_value() for e in page.locator("[data-measure]").all()}
    assert {symbol: text for symbol, text in shown.items() if text} == typed


def test_pointing_at_a_field_shows_the_tape_and_pointing_at_the_tape_shows_the_field(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    page.locator("[data-measure=waist_girth]").focus()
    page.locator("[data-lit=waist_girth]").first.wait_for()
    tape = page.locator("[data-figure] [data-tape=high_bust_girth]").first
    box = tape.bounding_box()
    x, y = tape.evaluate(
        "e => { const p = e.getPointAtLength(e.getTotalLength() * 0.2).matrixTransform(e.getScreenCTM()); return [p.x, p.y] }"
    )
    assert box["width"] > 20
    page.mouse.move(x, y)
    page.locator("[data-row=high_bust_girth].pointed").wait_for()
    page.mouse.click(x, y)
    page.wait_for_function("() => document.activeElement.dataset.measure === 'high_bust_girth'")


def test_the_figure_grows_with_the_girth_that_is_typed(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    page.locator("[data-outline=front]").wait_for()
    tab.settle()

    def breadth():
        return page.locator("[data-lit=waist_girth]").first.evaluate("e => e.getBBox().width")

    page.locator("[data-measure=waist_girth]").focus()
    page.locator("[data-lit=waist_girth]").first.wait_for()
    before = breadth()
    page.locator("[data-measure=waist_girth]").fill("100")
    page.wait_for_function(
        "([w]) => document.querySelector('[data-lit=waist_girth]').getBBox().width > w * 1.3", arg=[before]
    )
    assert breadth() / before == pytest.approx(100 / 74, rel=0.02)


def test_guided_taking_reads_twice_where_it_matters_skips_pauses_and_goes_on_after_days(tab, second_tab):
    tab.new_ticket(name="Odile Varn")
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=take")
    page.get_by_label("Elastic at the waist").check()
    tab.button("Begin").click()

    def named(name):
        return page.locator("label.name", has_text=name)

    field = page.locator("#guide-field")
    assert page.locator("label.name").inner_text() == "Body height"
    page.keyboard.type("168.4")
    page.keyboard.press("Enter")
    named("Neck-base girth").wait_for()
    page.keyboard.press("Enter")  # nothing typed: skipped
    named("Upper-chest girth").wait_for()
    page.keyboard.press("ArrowUp")
    named("Neck-base girth").wait_for()
    page.wait_for_function("() => document.activeElement.id === 'guide-field'")
    page.keyboard.type("37")
    page.keyboard.press("Enter")
    named("Upper-chest girth").wait_for()
    tab.settle()

    # Days later, on another page: what was typed is there, at the place where it stopped.
    other = second_tab.page
    other.goto(f"{job}/measure?view=take")
    other.locator("label.name", has_text="Upper-chest girth").wait_for()
    other.goto(f"{job}/measure")
    other.get_by_text("is here again").wait_for()
    assert other.locator("[data-measure=neck_girth]").input_value() == "37"

    # To the end of the way; then what nothing else vouches for is read again.
    for _ in range(40):
        if page.get_by_text("Once more", exact=True).count():
            break
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(60)
    page.get_by_text("Once more", exact=True).wait_for()
    name = page.locator("label.name").inner_text()
    assert "second reading" in name
    symbol = next(s for s, m in measures().items() if name.startswith(m.name + ","))
    first = (
        next(r["cm"] for r in tab.state()["sheet"]["readings"] if r["symbol"] == symbol)
        if symbol != "height"
        else 168.4
    )
    field.fill(f"{first + 5:g}")
    field.press("Enter")
    page.locator("label.name", has_text="third reading").wait_for()
    page.get_by_text("read it once more").wait_for()
    field.fill(f"{first + 0.2:g}")
    field.press("Enter")
    page.wait_for_function(
        "n => !document.querySelector('label.name')?.innerText.startsWith(n)", arg=measures()[symbol].name
    )
    tab.settle()
    page.keyboard.press("Escape")
    page.locator(f"[data-row={symbol}]").get_by_text("of 3").wait_for()
    tab.button("Keep as a new sheet and draft again").click()
    page.wait_for_url("**/draft*")
    kept = next(r for r in tab.state()["sheet"]["readings"] if r["symbol"] == symbol)
    assert kept["cm"] == pytest.approx(first + 0.2)
    assert len(kept["again"]) == 2


def test_guided_taking_reads_left_and_then_right_where_they_are_taken_apart(tab):
    tab.new_ticket()
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=take")
    tab.button("Begin").click()
    for _ in range(30):
        if page.locator("label.name").inner_text().startswith("Shoulder length"):
            break
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(60)
    page.get_by_label("left and right apart").check()
    field = page.locator("#guide-field")
    for side, text in (("left", "12"), ("right", "12.8")):
        page.locator("label.name", has_text=f"Shoulder length, {side}").wait_for()
        field.fill(text)
        field.press("Enter")
    page.locator("label.name", has_text="Across front").wait_for()
    page.keyboard.press("Escape")
    assert page.locator("[data-measure='shoulder_length.right']").input_value() == "12.8"
    page.locator("[data-measure='shoulder_length.right']").focus()
    page.get_by_text("Left and right differ by 0.8 cm").wait_for()
    tab.button("Keep as a new sheet and draft again").click()
    page.wait_for_url("**/draft*")
    page.get_by_text("Sums", exact=True).click()
    page.locator("[data-sum=shoulder_length] .value").wait_for()
    assert tab.sum_value("shoulder_length") == "12.4 cm"


def test_what_was_typed_in_centimetres_is_called_so_to_who_reads_in_inches(tab):
    tab.new_ticket()
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=take")
    page.get_by_text("inches", exact=True).click()
    tab.button("Begin").click()
    page.locator("label.name", has_text="Body height").wait_for()
    assert page.locator("#guide-field").input_value() == "168"
    assert page.locator(".entry .unit").inner_text() == "cm"
    page.locator(".entry .other", has_text="66⅛ in").wait_for()
    page.locator("#guide-field").fill("66 1/4")
    page.locator(".entry .unit", has_text="in").wait_for()
    page.locator(".entry .other", has_text="168.3 cm").wait_for()


def test_a_reading_that_cannot_be_read_is_not_left_behind(tab):
    tab.new_ticket()
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=take")
    tab.button("Begin").click()
    field = page.locator("#guide-field")
    field.fill("tall")
    field.press("Enter")
    page.get_by_text("“tall” is not a length").wait_for()
    assert page.locator("label.name").inner_text() == "Body height"
    field.fill("66")
    page.get_by_role("button", name="Yes: 66.0 in").click()
    page.locator(".entry .other", has_text="66 in").wait_for()
    field.press("Enter")
    page.locator("label.name", has_text="Neck-base girth").wait_for()


def test_the_sheet_is_typed_on_without_a_server_and_kept_when_it_answers_again(tab):
    tab.expect_complaint(r"ERR_INTERNET_DISCONNECTED")
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    page.locator("[data-measure=waist_girth]").wait_for()
    tab.settle()
    page.context.set_offline(True)
    tab.measure("waist_girth", "75.5")
    page.get_by_text("The workroom’s server does not answer.").wait_for()
    page.context.set_offline(False)
    tab.measure("neck_girth", "37.5")
    page.get_by_text("The workroom’s server does not answer.").wait_for(state="detached")
    page.locator("#keep:enabled").click()
    page.wait_for_url("**/draft*")
    kept = {r["symbol"]: r["text"] for r in tab.state()["sheet"]["readings"]}
    assert kept["waist_girth"] == "75.5"
    assert kept["neck_girth"] == "37.5"


def test_a_contradiction_names_what_to_take_again_and_leads_there(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    page.locator("[data-measure=back_waist_length]").wait_for()
    for symbol, text in {"back_waist_length": "41", "armhole_depth": "19.6", "side_length": "26.5"}.items():
        tab.measure(symbol, text)
    doubts = page.locator("[data-doubts]")
    doubts.get_by_text("do not add up to nape to waist").wait_for()
    doubts.get_by_role("button", name="Underarm to waist").click()
    page.wait_for_function("() => document.activeElement.dataset.measure === 'side_length'")
    page.keyboard.press("Control+a")
    page.keyboard.type("21.5")
    doubts.wait_for(state="detached")


def test_three_measures_to_take_next_come_with_how_far_the_draft_would_move(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    page.locator("[data-next] li").first.wait_for()
    lines = page.locator("[data-next] li").all_inner_texts()
    assert len(lines) == 3
    moves = [float(re.search(r"may be ([\d.]+)\scm off", line)[1]) for line in lines]
    assert moves == sorted(moves, reverse=True)
    assert moves[0] > 0.5
    sources = page.locator("[data-darts] tr").all_inner_texts()
    assert len(sources) == 4
    assert any("drawn" in row for row in sources)


def test_measured_alone_the_back_expansion_is_offered_set_and_taken_out_again(tab):
    tab.new_ticket()
    page = tab.page
    before = tab.page.request.get(f"{tab.server}/api/jobs/{tab.job_id()}/files/json").json()["values"]["back_width"]
    page.keyboard.press("1")
    page.locator("#by").select_option("alone")
    offer = page.locator("[data-offers]")
    with tab.keeping():
        offer.get_by_role("button", name="Add 2.5 cm").click()
    offer.get_by_text("is in the draft").wait_for()
    changed = tab.page.request.get(f"{tab.server}/api/jobs/{tab.job_id()}/files/json").json()
    assert changed["values"]["back_width"] == pytest.approx(before + 1.25, abs=0.05)
    assert "the measures were taken alone" in tab.state()["log"][-1]["text"]
    with tab.keeping():
        offer.get_by_role("button", name="Take it out").click()
    again = tab.page.request.get(f"{tab.server}/api/jobs/{tab.job_id()}/files/json").json()
    assert again["values"]["back_width"] == before


def test_a_new_sheet_is_compared_with_the_old_and_chosen_for_the_job(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    tab.measure("waist_girth", "79")
    page.get_by_text("Moved since the last sheet").wait_for()
    tab.button("Keep as a new sheet and draft again").click()
    page.wait_for_url("**/draft*")
    assert tab.state()["sheet"]["number"] == 2
    page.keyboard.press("1")
    page.locator("[data-measure=waist_girth]").wait_for()
    page.get_by_text("Earlier sheets", exact=True).click()
    found = page.locator("[data-comparison]")
    found.get_by_text("Waist girth").wait_for()
    assert "+5.0" in found.inner_text()
    assert "Bodice front: up to" in found.inner_text()
    tab.button("Draft from sheet 1").click()
    page.wait_for_url("**/draft*")
    assert tab.state()["sheet"]["number"] == 1


def test_a_csv_without_a_unit_is_asked_about_and_put_on_the_sheet(tab, tmp_path):
    tab.new_ticket()
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=files")
    path = Path(tmp_path) / "from-a-spreadsheet.csv"
    path.write_text("Measure;Reading\nBust girth;36 1/2\nhip_girth;39\nnose length;3\n", encoding="utf-8")
    page.locator("input[type=file]").set_input_files(path)
    page.get_by_text("does not say what its lengths are in").wait_for()
    tab.expect_complaint("422")
    tab.button("They are inches").click()
    page.get_by_text("2 measures in from-a-spreadsheet.csv").wait_for()
    page.get_by_text("nose_length").wait_for()
    tab.button("Put them on the sheet").click()
    page.locator("[data-measure=bust_girth]").wait_for()
    assert page.locator("[data-measure=bust_girth]").input_value() == "36 1/2 in"
    page.locator("[data-row=bust_girth]").get_by_text("92.7 cm").wait_for()


def test_the_simulated_scanner_delivers_a_sheet(tab):
    tab.new_ticket()
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=files")
    page.get_by_label("Size", exact=True).select_option("100")
    tab.button("Scan").click()
    page.get_by_text("measures in scan").wait_for()
    tab.button("Put them on the sheet").click()
    page.locator("[data-measure=bust_girth]").wait_for()
    assert float(page.locator("[data-measure=bust_girth]").input_value().split()[0]) == pytest.approx(100, abs=2)
    assert page.locator("#by").input_value() == "scan"


def test_sheets_are_printed_blank_and_filled(tab, tmp_path):
    tab.new_ticket()
    page = tab.page
    job = page.url.split("/draft")[0]
    page.goto(f"{job}/measure?view=files")
    for name, says in (("Letter", "Measuring sheet"), ("A4", "Odile Varn")):
        link = page.get_by_role("link", name=name)
        with page.expect_download() as download:
            (link.first if name == "Letter" else link.last).click()
        path = tmp_path / f"{name}.pdf"
        download.value.save_as(path)
        pdf = pypdfium2.PdfDocument(path)
        text = pdf[0].get_textpage().get_text_range()
        assert says in text
        assert round(pdf[0].get_width()) == (612 if name == "Letter" else 595)


def test_a_job_is_drafted_for_a_standard_size_and_for_a_chart_of_ones_own(tab):
    page = tab.page
    tab.open("/sizes")
    page.get_by_label("Name", exact=True).fill("Choir, two sizes")
    page.get_by_label("Sizes: a heading").fill(
        "size, bust_girth, waist_girth, height\nS, 34 1/2, 27, 65\nM, 37, 30, 66"
    )
    tab.button("Keep the chart").click()
    page.get_by_text("does not say what its lengths are in").wait_for()
    tab.expect_complaint("422")
    tab.button("Inches").click()
    page.get_by_role("rowheader", name="M", exact=True).wait_for()
    for chart, size, bust in (("Women, by bust girth", "104", 104.0), ("Choir, two sizes", "M", 93.98)):
        tab.open("/new")
        tab.field("For whom").select_option("size")
        page.get_by_label("Chart", exact=True).wait_for()
        option = page.get_by_label("Chart", exact=True).locator("option", has_text=chart).get_attribute("value")
        page.get_by_label("Chart", exact=True).select_option(option)
        page.get_by_label("Size", exact=True).select_option(size)
        tab.field("Garment").fill(f"Top in {size}")
        tab.button("Draft it").click()
        page.wait_for_url("**/draft*")
        page.locator("[data-piece=bodice_front]").wait_for()
        kept = {r["symbol"]: r["cm"] for r in tab.state()["sheet"]["readings"]}
        assert kept["bust_girth"] == pytest.approx(bust)
        assert tab.state()["sheet"]["taken_by"] == "chart"


def test_a_measure_is_read_again_on_the_sheet_and_its_median_counts(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    page.locator("[data-measure=bust_girth]").focus()
    page.get_by_label("second reading").fill("95")
    page.get_by_text("They lie 3.0 cm apart").wait_for()
    page.get_by_label("third reading").fill("92.6")
    page.get_by_text("counts: 92.6 cm, the median").wait_for()
    page.locator("[data-row=bust_girth]").get_by_text("92.6 of 3").wait_for()
    tab.button("Keep as a new sheet and draft again").click()
    page.wait_for_url("**/draft*")
    bust = next(r for r in tab.state()["sheet"]["readings"] if r["symbol"] == "bust_girth")
    assert bust["cm"] == pytest.approx(92.6)
    assert [r["text"] for r in bust["again"]] == ["95", "92.6"]


def test_what_is_missing_shows_its_estimate_with_how_far_it_may_be_off_on_sheet_and_sums(tab):
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("1")
    row = page.locator("[data-row=neck_girth]")
    row.get_by_text("est. 37.1 ± 1.4").wait_for()
    page.locator("[data-measure=neck_girth]").focus()
    page.get_by_text("Estimated 37.1 ± 1.4 cm").wait_for()
    page.get_by_text("0.18 × 92 + 20.5").wait_for()
    page.keyboard.type("38")
    row.get_by_text("est.").wait_for(state="detached")
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    row.get_by_text("est. 37.1").wait_for()
    job = page.url.split("/measure")[0]
    page.goto(f"{job}/draft?panel=sums")
    page.locator("[data-sum=neck_girth]").get_by_text("estimated ± 1.4 cm").wait_for()


def test_a_cup_letter_is_typed_as_a_letter_and_gives_a_dart_beside_the_others(tab):
    tab.new_ticket(bust_girth="92", waist_girth="74", height="168")
    page = tab.page
    page.keyboard.press("1")
    tab.measure("cup", "DD")
    darts = page.locator("[data-darts]")
    row = darts.locator("tr", has_text="Bra cup")
    row.get_by_text("drawn").wait_for()
    tab.measure("high_bust_girth", "86")
    darts.locator("tr.counts", has_text="Bust less upper chest").wait_for()
    assert "°" in row.inner_text()
    tab.measure("cup", "?")
    page.get_by_text("Or type the letter on the bra").wait_for()


def test_the_measure_sheet_of_a_first_wearer_takes_the_allowance_into_the_new_job(tab):
    page = tab.page
    tab.begin_measuring()
    for symbol, text in {"bust_girth": "92", "waist_girth": "74", "height": "168"}.items():
        tab.measure(symbol, text)
    page.locator("#by").select_option("alone")
    page.locator("[data-offers]").get_by_role("button", name="Add 2.5 cm").click()
    page.locator("[data-offers]").get_by_text("is in the draft").wait_for()
    tab.button("Keep the sheet and draft").click()
    page.wait_for_url("**/draft*")
    state = tab.state()
    assert state["recipe"]["overrides"] == {"back_expansion": 2.5}
    assert state["sheet"]["taken_by"] == "alone"


def test_what_takes_long_says_how_far_it_is_and_can_be_stopped_and_begun_again(tab):
    work = {"uid": "w", "kind": "advice", "state": "running", "done": 5, "of": 23}
    begun = []

    def begin(route):
        begun.append(1)
        # The first time it takes long; then it is let through to the server.
        if len(begun) == 1:
            route.fulfill(json=work)
        else:
            route.continue_()

    tab.page.route("**/api/measures/advice", begin)
    tab.page.route("**/api/long-work/w", lambda route: route.fulfill(json=work))
    tab.page.route("**/api/long-work/w/stop", lambda route: route.fulfill(json={**work, "state": "stopped"}))
    tab.begin_measuring()
    for symbol, text in {"bust_girth": "92", "waist_girth": "74", "height": "168"}.items():
        tab.measure(symbol, text)
    tab.page.get_by_text("Working out what to take next: 5 of 23 measures tried").wait_for()
    tab.button("Stop").click()
    tab.page.get_by_text("Stopped: what to take next is not worked out.").wait_for()
    tab.button("Work it out").click()
    tab.page.locator("[data-next]").wait_for()
    assert len(begun) == 2
