"""Every screen: nothing serious for assistive technology, both units, keys, tablet and zoom."""

import re
import sqlite3

import pytest
from axe_playwright_python.sync_playwright import Axe

pytestmark = pytest.mark.django_db(transaction=True)

SCREENS = (
    "/",
    "/new",
    "{job}/measure",
    "{job}/measure?view=take",
    "{job}/measure?view=time",
    "{job}/measure?view=files",
    "/sizes",
    "{job}/draft",
    "{job}/draft?panel=sums",
    "{job}/draft?panel=checks",
    "{job}/draft?panel=block",
    "{job}/draft?panel=schools",
    "{job}/draft?panel=hand",
    "{job}/style",
    "{job}/check",
    "{job}/check?panel=walk",
    "{job}/check?panel=ease",
    "{job}/fit",
    "{job}/drape",
    "{job}/drape?part=picture",
    "{job}/cut",
    "{job}/cut?part=cloths",
    "{job}/cut?part=lay",
)


_LOADED: list[tuple[sqlite3.Connection, dict[str, bytes]]] = []


def demo_loaded():
    """Load the demo; from the second time on as a copy of what the first came to."""
    from django.db import connection

    from studio.demo import load
    from studio.storage import photos

    connection.ensure_connection()
    if not _LOADED:
        load()
        copy = sqlite3.connect(":memory:")
        connection.connection.backup(copy)
        _LOADED.append((copy, {path.name: path.read_bytes() for path in photos.folder().glob("*.jpg")}))
        return
    copy, pictures = _LOADED[0]
    copy.backup(connection.connection)
    photos.folder().mkdir(exist_ok=True)
    for name, jpeg in pictures.items():
        (photos.folder() / name).write_bytes(jpeg)


#: Pixels. A rule along the table is no thicker.
RULE = 40


@pytest.fixture
def demo(transactional_db, tab):
    from studio.models import Job

    demo_loaded()
    return f"/jobs/{Job.objects.get(garment__startswith='Concert dress').id}"


#: A tablet either way up, and 1280 × 800 at 200 %.
SIZES = ((1024, 768), (768, 1024), (640, 400))


def serious(tab, only=None):
    options = {"resultTypes": ["violations"]} | ({"runOnly": [only]} if only else {})
    found = Axe().run(tab.page, options=options).response["violations"]
    return [
        (v["id"], [node["html"][:120] for node in v["nodes"][:3]])
        for v in found
        if v["impact"] in ("serious", "critical")
    ]


@pytest.mark.parametrize("screens", [SCREENS[::2], SCREENS[1::2]], ids=["one half", "the other"])
def test_every_screen_is_readable_for_everyone_by_day_and_evening_and_runs_out_of_no_page(tab, demo, screens):
    """Each is opened once, in inches: no centimetres, inner names or code in its text; then looked at in both lights and four
    sizes: axe finds nothing serious, nothing overflows."""
    tab.page.add_init_script("localStorage.setItem('izett-unit', 'in')")
    for screen in screens:
        tab.page.set_viewport_size({"width": 1280, "height": 800})
        tab.open(screen.format(job=demo))
        for what, lines in unreadable(tab).items():
            assert lines == [], f"{what} on {screen}"
        # By evening nothing but the colours is another.
        for light, only in (("Evening light", None), ("Day light", "color-contrast")):
            assert serious(tab, only) == [], (screen, light)
            tab.button(light).click()
        for width, height in SIZES:
            tab.page.set_viewport_size({"width": width, "height": height})
            tab.page.wait_for_timeout(60)
            over = tab.page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            # What lies along the edges of a table covers no more of it: it would veil what lies there.
            rules = tab.page.evaluate(
                "[...document.querySelectorAll('svg.rule')].map((e) => Math.min(e.clientWidth, e.clientHeight))"
            )
            assert all(thick <= RULE for thick in rules), screen
            assert over <= 1, (screen, width)


def test_what_is_done_on_the_style_and_check_screens_is_readable_for_everyone(tab, demo):
    """With a thing pointed at, and with a step open: what those screens are for."""
    tab.open(f"{demo}/style")
    tab.page.get_by_label("Point at the table, or choose").select_option(label="Bodice front, whole: left front neck")
    tab.page.locator(".offers li").first.wait_for()
    assert serious(tab) == []
    tab.page.get_by_role("button", name="V neckline", exact=True).click()
    tab.page.locator("form.step").wait_for()
    tab.settle()
    assert serious(tab) == []


def test_inches_are_shown_with_fractions_everywhere(tab, demo):
    tab.page.add_init_script("localStorage.setItem('izett-unit', 'in')")
    tab.open(f"{demo}/draft?panel=sums")
    tab.settle()
    assert tab.sum_value("back_waist_length") == "16⅝ in"
    tab.open(f"{demo}/cut")
    assert tab.field("front side").input_value() == "1"
    tab.open(f"{demo}/fit")
    tab.settle()
    assert "in" in tab.page.locator("table tbody tr").first.inner_text()


def test_what_the_core_says_is_read_in_inches_too(tab, demo):
    tab.page.add_init_script("localStorage.setItem('izett-unit', 'in')")
    tab.open(f"{demo}/style")
    tab.page.get_by_text("Side seams, each edge: take ¼ in at the underarm").wait_for()
    assert tab.page.locator("aside").get_by_text(" cm").count() == 0


#: What no reader should meet: a length in centimetres, a number without end, an inner name, a formula as code.
NEVER = {
    "centimetres": r"\d ?cm\b",
    "a number without end": r"\d\.\d{4,}",
    "an inner name": r"\b[a-z]+_[a-z_]+\b|(?<![\w./@])(?:front|back|sleeve|skirt_front|skirt_back)\.[a-z_]+",
    "code": r"\b(?:max|min|sqrt|clamp|radians|sin|cos|tan)\(|\bif\b[^.]{1,60}\belse\b",
    "a mark": r"[⟦⟧]",
}
#: All that is read on a page: its text, and what is told of a thing that is pointed at.
READ = """document.body.innerText + '\\n' + [...document.querySelectorAll('[title], [aria-label], [placeholder]')]
  .flatMap((e) => [e.title, e.ariaLabel, e.placeholder]).filter(Boolean).join('\\n')"""


def unreadable(tab):
    """Return what of a page's text no reader should meet, by what it is."""
    # A reading shows what it is in the other unit beside it, on purpose.
    tab.page.locator(".other").evaluate_all("found => found.forEach((e) => e.remove())")
    lines = tab.page.evaluate(READ).split("\n")
    return {what: [line for line in lines if re.search(pattern, line)] for what, pattern in NEVER.items()}


def test_the_story_opens_under_every_stage(tab, demo):
    for stage in ("measure", "draft", "style", "check", "fit", "cut"):
        tab.open(f"{demo}/{stage}")
        tab.settle()
        tab.page.keyboard.press("l")
        tab.page.locator("footer ol").get_by_text("Muslin 1 cut in unbleached calico").wait_for()
        assert tab.button("Story", exact=False).get_attribute("aria-expanded") == "true"


def test_the_unit_is_switched_by_keyboard_and_remembered(tab, demo):
    tab.open(f"{demo}/draft?panel=sums")
    tab.page.get_by_role("radio", name="inches").focus()
    tab.page.keyboard.press("Space")
    tab.page.locator("[data-sum=bust_girth] .value", has_text="in").wait_for()
    tab.page.reload()
    tab.page.locator("[data-sum=bust_girth] .value", has_text="in").wait_for()


def test_every_stage_is_reached_by_its_key(tab, demo):
    tab.open(f"{demo}/draft")
    for key, stage in (
        ("1", "measure"),
        ("2", "draft"),
        ("3", "style"),
        ("4", "check"),
        ("5", "fit"),
        ("6", "drape"),
        ("7", "cut"),
    ):
        tab.page.keyboard.press(key)
        tab.page.wait_for_url(f"**/{stage}*")
        tab.settle()
    tab.page.keyboard.press("?")
    tab.page.get_by_role("dialog").get_by_text("the bench").wait_for()
    tab.page.keyboard.press("Escape")
    tab.page.get_by_role("dialog").wait_for(state="hidden")
    tab.settle()
    tab.page.keyboard.press("b")
    tab.page.get_by_role("heading", name="On the bench").wait_for()


def test_the_table_is_moved_and_zoomed_by_keys(tab, demo):
    tab.open(f"{demo}/draft")
    tab.settle()
    svg = tab.page.locator("svg[role=img]")
    start = svg.get_attribute("viewBox")
    svg.focus()
    for key in ("+", "ArrowRight"):
        before = svg.get_attribute("viewBox")
        tab.page.keyboard.press(key)
        assert svg.get_attribute("viewBox") != before
    tab.page.keyboard.press("0")
    assert svg.get_attribute("viewBox") == start


def test_findings_are_put_on_the_figure_by_keyboard(tab, demo):
    tab.open(f"{demo}/fit")
    tab.settle()
    tab.page.get_by_role("button", name="Strain across the back on reaching", exact=True).first.focus()
    tab.page.keyboard.press("Enter")
    assert tab.page.get_by_label("It shows", exact=True).input_value() == "back_tight"
