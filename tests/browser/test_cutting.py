"""Cutting, as its user does it: a cloth, a lay plan with what it needs, a piece moved by hand and by key, sums, lists, files."""

import re

import pytest
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
    page.get_by_text("Bodice front: cut 1, on the fold").wait_for()
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
