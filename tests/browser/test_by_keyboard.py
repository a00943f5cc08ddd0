"""A whole job by keyboard alone, from the bench to the print file: Tab, letters, Enter, and the keys of the stages."""

import pytest

from tests.browser.conftest import MEASURES

pytestmark = pytest.mark.django_db(transaction=True)

#: Presses of Tab after which a thing is taken for out of reach.
FAR = 160


def reach(page, what):
    """Go on with Tab until a thing has the focus."""
    what.wait_for()
    for _ in range(FAR):
        if what.evaluate("node => node === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"not reached by Tab: {what}")


def press(page, what, key="Enter"):
    reach(page, what)
    page.keyboard.press(key)


def typed(page, what, text):
    reach(page, what)
    page.keyboard.press("Control+a")
    page.keyboard.type(text)


def chosen(page, what, words, *, by_arrow=False):
    """Choose from a list: opened, gone through by its first letters, taken."""
    reach(page, what)
    page.keyboard.press("ArrowDown" if by_arrow else "Space")
    page.keyboard.type(words)
    page.keyboard.press("Enter")


def button(page, words, exact=True):
    return page.get_by_role("button", name=words, exact=exact)


def test_from_the_bench_to_the_print_file_without_a_pointer(tab):
    page = tab.page
    # The browser itself tells whether a pointer was ever used.
    page.add_init_script("addEventListener('pointerdown', () => sessionStorage.setItem('pointed', 'yes'), true)")
    tab.open("/new")
    chosen(page, tab.field("For whom"), "Someone")
    typed(page, tab.field("Name"), "Odile Varn")
    chosen(page, tab.field("Blocks"), "Bodice")
    typed(page, tab.field("Garment"), "Shell by keyboard")
    press(page, button(page, "On to measuring"))
    # Measure.
    for symbol, text in MEASURES.items():
        typed(page, page.locator(f"[data-measure={symbol}]"), text)
    press(page, button(page, "Keep the sheet and draft"))
    page.wait_for_url("**/draft*")
    page.locator("[data-piece]").first.wait_for()
    page.keyboard.press("3")
    # Style: a thing, what to do with it, by how much.
    chosen(page, page.get_by_label("Point at the table, or choose"), "Bodice front: front neck", by_arrow=True)
    press(page, button(page, "V neckline"))
    page.locator("form.step").wait_for()
    deeper = (
        page.locator("form.step")
        .get_by_label("deeper at the centre front", exact=False)
        .and_(page.locator("input.field"))
    )
    typed(page, deeper, "7")
    with tab.keeping():
        page.keyboard.press("Enter")
    page.locator("form.step").wait_for(state="detached")
    assert [(s["kind"], s["params"]["front"]) for s in tab.state()["recipe"]["steps"]] == [("change_neckline", 7)]
    # Check: what does not agree, and its fix.
    page.keyboard.press("4")
    fix = page.get_by_role("button", name="Open it with a zip", exact=False).first
    with tab.keeping():
        press(page, fix)
    page.get_by_text("Everything agrees", exact=False).wait_for()
    # Fit: a muslin, a finding, its remedy.
    page.keyboard.press("5")
    press(page, button(page, "Cut muslin 1"))
    press(page, button(page, "Shoulder seam falls off the shoulder point"))
    with tab.keeping():
        press(page, button(page, "Record and change the paper"))
    assert len(tab.state()["recipe"]["steps"]) == 3
    # Cut: the print file.
    page.keyboard.press("7")
    link = page.get_by_role("link", name="Print file, A4")
    with page.expect_download() as download:
        press(page, link)
    assert download.value.suggested_filename.endswith(".pdf")
    assert page.evaluate("sessionStorage.getItem('pointed')") is None
