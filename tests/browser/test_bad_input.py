"""Bad input, stale tabs, a lost connection: each has an answer on the screen, and nothing entered is lost."""

import pytest

pytestmark = pytest.mark.django_db(transaction=True)


def test_odd_measures_are_asked_about_at_once_and_kept_as_typed(tab):
    page = tab.page
    tab.begin_measuring()
    tab.measure("waist_girth", "29")
    page.get_by_text("Waist girth of 29.0 cm: was that inches?").wait_for()
    tab.button("Yes: 29.0 in").click()
    page.locator(".row", has_text="Waist girth").get_by_text("73.7 cm").wait_for()
    for text, says in (
        ("abc", "is not a length"),
        ("-4", "cannot be a measure"),
        ("0", "cannot be a measure"),
        ("900000", "cannot be a measure"),
    ):
        tab.measure("bust_girth", text)
        page.locator("#m-bust_girth-odd", has_text=says).wait_for()
        assert tab.button("Keep the sheet and draft").is_disabled()
        assert page.locator("[data-measure=bust_girth]").input_value() == text
    tab.measure("bust_girth", "92")
    tab.measure("height", "168")
    tab.measure("high_bust_girth", "99")
    page.get_by_text("The upper chest is larger than the bust").wait_for()
    page.get_by_text("Take again first: Upper-chest girth").wait_for()
    assert tab.button("Keep the sheet and draft").is_enabled(), "a contradiction is told, never a wall"
    # Reload: what was typed and not kept is here again.
    page.reload()
    page.get_by_text("What you had typed for Odile Varn").wait_for()
    assert page.locator("[data-measure=high_bust_girth]").input_value() == "99"


def test_missing_measures_are_named(tab):
    page = tab.page
    tab.begin_measuring()
    tab.measure("bust_girth", "92")
    page.get_by_text("Still needed: waist girth; body height or nape to waist.").wait_for()


def test_measures_that_make_no_bodice_are_refused_in_words(tab):
    tab.expect_complaint(r"422")
    page = tab.page
    tab.new_ticket()
    page.keyboard.press("1")
    tab.measure("neck_to_apex", "18")
    tab.measure("apex_span", "60")
    tab.button("Keep as a new sheet and draft again").click()
    page.get_by_role("alert").get_by_text("Retake").wait_for()
    assert page.locator("[data-measure=apex_span]").input_value() == "60"
    assert tab.state()["sheet"]["number"] == 1


def test_an_allowance_out_of_range_is_told_where_it_stands(tab):
    tab.new_ticket()
    field = tab.field("Bust ease")
    field.fill("40")
    field.press("Enter")
    tab.page.get_by_text("Enter a value from 3 cm to 24 cm.").wait_for()
    assert field.input_value() == "40"
    assert tab.state()["version"] == 1


def test_a_stale_tab_is_told_and_its_change_can_be_made_again(tab, second_tab):
    tab.expect_complaint(r"412")
    tab.new_ticket()
    second_tab.open(tab.page.url.removeprefix(tab.server))
    second_tab.field("Waist ease").fill("6")
    with second_tab.keeping():
        second_tab.field("Waist ease").press("Enter")
    tab.field("Bust ease").fill("8")
    tab.field("Bust ease").press("Enter")
    tab.page.get_by_text("This job was changed elsewhere").wait_for()
    assert tab.state()["recipe"]["overrides"] == {"waist_ease": 6.0}, "the newer change stands"
    with tab.keeping():
        tab.button("Make my change on the newer state", exact=False).click()
    assert tab.state()["recipe"]["overrides"] == {"waist_ease": 6.0, "bust_ease": 8.0}, (
        "neither change takes the other back"
    )


def test_a_lost_connection_keeps_what_was_entered(tab):
    tab.expect_complaint(r"ERR_INTERNET_DISCONNECTED")
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("5")
    tab.field("Cloth").fill("calico")
    page.context.set_offline(True)
    tab.button("Cut muslin 1").click()
    page.get_by_text("The workroom’s server does not answer.").wait_for()
    assert tab.field("Cloth").input_value() == "calico"
    page.context.set_offline(False)
    tab.button("Do it again: cut muslin 1").click()
    page.get_by_role("heading", name="Done with muslin 1?").wait_for()
    assert tab.state()["rounds"][0]["cloth"] == "calico"


def test_a_foreign_file_is_refused_and_the_bench_stays(tab, tmp_path):
    tab.expect_complaint(r"422")
    tab.new_ticket()
    tab.open("/")
    path = tmp_path / "holiday.json"
    path.write_text('{"format": "holiday"}')
    tab.page.locator("input[type=file]").set_input_files(path)
    tab.page.get_by_text("This is not a whole izett-job file").wait_for()
    assert tab.page.get_by_text("Recital bodice").count() == 1


def test_a_finding_with_nonsense_is_told_and_the_table_shows_the_kept_lines(tab):
    tab.expect_complaint(r"422")
    tab.new_ticket()
    page = tab.page
    page.keyboard.press("5")
    tab.button("Cut muslin 1").click()
    page.get_by_role("button", name="Waist seam lies below the waist", exact=True).click()
    tab.field("Below the waist").fill("far")
    page.get_by_text("“far” is not a length").wait_for()
    tab.field("Below the waist").fill("44")
    page.get_by_text("is outside 0.2 cm to 5 cm").wait_for()
    assert tab.button("Record and change the paper").is_disabled()


def test_an_address_that_leads_nowhere_leads_back_to_the_bench(tab):
    tab.expect_complaint(r"404")
    tab.open("/nowhere/at/all")
    tab.page.get_by_text("There is nothing at this address").wait_for()
    tab.open("/jobs/00000000-0000-0000-0000-000000000000/draft")
    tab.page.get_by_text("There is no such job").wait_for()
