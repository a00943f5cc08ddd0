"""The real page in Debian's chromium, headless: a test fails on page errors, console errors, and off-server requests."""

import re
from contextlib import contextmanager
from datetime import date
from pathlib import Path

import pytest
from playwright.sync_api import sync_playwright

from izett.drafting.sets import starter_sets

ROOT = Path(__file__).parents[2]
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]

#: Milliseconds until a test gives up: a slow machine is no fault.
PATIENCE = 30_000
#: Milliseconds between two looks whether the page is at rest, and how long it must be.
GLANCE, QUIET = 30, 180


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield browser
        browser.close()


class Tab:
    """A browser tab on the studio, with what a person does in it."""

    def __init__(self, context, server):
        self.page = context.new_page()
        self.server = server.url
        self.complaints: list[str] = []
        self.expected: list[str] = []
        self.asked: list[str] = []
        self.page.set_default_timeout(PATIENCE)
        self.page.on("pageerror", lambda error: self.complaints.append(f"page error: {error}"))
        self.page.on("console", lambda m: m.type == "error" and self.complaints.append(f"console: {m.text}"))
        self.page.on("request", self._asked)
        self.under_way: set[object] = set()
        for over in ("requestfinished", "requestfailed"):
            self.page.on(over, self._answered)
        self.page.on(
            "response", lambda answer: self.asked.append(f"{answer.status}:{answer.url.removeprefix(self.server)}")
        )

    def _answered(self, request):
        self.under_way.discard(request)

    def _asked(self, request):
        self.under_way.add(request)
        if not request.url.startswith((self.server, "data:", "blob:")):
            self.complaints.append(f"off-server request: {request.url}")

    def expect_complaint(self, pattern):
        """Allow console errors that match: a refused request is logged by the browser itself."""
        self.expected.append(pattern)

    def unexpected(self):
        return [c for c in self.complaints if not any(re.search(p, c) for p in self.expected)]

    def open(self, path="/"):
        self.page.goto(self.server + path)
        self.settle()

    def settle(self):
        """Wait until the page has asked for nothing for a while: what it shows is what it will show."""
        self.page.wait_for_load_state("load")
        quiet = 0
        for _ in range(PATIENCE // GLANCE):
            self.page.wait_for_timeout(GLANCE)
            quiet = 0 if self.under_way else quiet + GLANCE
            if quiet >= QUIET:
                return
        raise AssertionError(f"the page goes on asking: {self.asked[-8:]}")

    def field(self, label):
        """Return a field by its label; a slider of the same name is not meant."""
        return self.page.locator("input, select, textarea").and_(self.page.get_by_label(label, exact=True))

    def measure(self, symbol, text):
        self.page.locator(f"[data-measure={symbol}]").fill(text)

    def button(self, name, **more):
        return self.page.get_by_role("button", name=name, **more)

    def sum_value(self, symbol):
        return self.page.locator(f"[data-sum={symbol}] .value").inner_text().strip()

    @contextmanager
    def keeping(self, deeds=1):
        """Wait until what is done in the block is kept, and shown again."""
        before = self.state()["version"]
        yield
        for _ in range(PATIENCE // 50):
            if self.state()["version"] >= before + deeds:
                break
            self.page.wait_for_timeout(50)
        else:
            raise AssertionError("nothing was kept")
        self.page.locator("footer").get_by_text("saved", exact=True).wait_for()
        self.page.wait_for_timeout(150)

    def job_id(self):
        return re.search(r"/jobs/([^/?]+)", self.page.url)[1]

    def state(self):
        return self.page.request.get(f"{self.server}/api/jobs/{self.job_id()}").json()

    def begin_measuring(self, garment="Recital bodice", name="Odile Varn", blocks="bodice"):
        """Write a ticket for someone new, up to their empty sheet."""
        self.open("/new")
        self.field("For whom").select_option("new")
        self.field("Name").fill(name)
        self.field("Garment").fill(garment)
        self.field("Blocks").select_option(blocks)
        self.button("On to measuring").click()
        self.page.locator("[data-measure=waist_girth]").wait_for()

    def new_ticket(self, garment="Recital bodice", name="Odile Varn", blocks="bodice", **readings):
        """Open the draft of a new job, for someone new and measured: made by the server, not typed."""
        self.page.request.get(self.server)
        wearer = self.post("/api/wearers", {"name": name})
        taken = {symbol: {"text": text, "unit": "cm"} for symbol, text in (readings or MEASURES).items()}
        self.post(f"/api/wearers/{wearer['id']}/sheets", {"taken_on": date.today().isoformat(), "readings": taken})
        begun = starter_sets()[blocks]
        cloth = {"kind": begun.cloth.kind, "stretch": begun.cloth.stretch}
        job = {
            "wearer": wearer["id"],
            "garment": garment,
            "blocks": list(begun.blocks),
            "fit": begun.fit,
            "cloth": cloth,
        }
        self.open(f"/jobs/{self.post('/api/jobs', job)['id']}/draft")
        self.page.locator("[data-piece]").first.wait_for()

    def post(self, path, body):
        """Ask the server for something new, as the page does."""
        token = next(c["value"] for c in self.page.context.cookies() if c["name"] == "csrftoken")
        answer = self.page.request.post(self.server + path, data=body, headers={"X-CSRFToken": token})
        assert answer.ok, answer.text()
        return answer.json()

    def write_ticket(self, garment="Recital bodice", name="Odile Varn", blocks="bodice", **readings):
        """Write a ticket for someone new and measure them, on the page."""
        self.begin_measuring(garment, name, blocks)
        for symbol, text in (readings or MEASURES).items():
            self.measure(symbol, text)
        self.button("Keep the sheet and draft").click()
        self.page.wait_for_url("**/draft*")
        self.page.locator("[data-piece]").first.wait_for()


MEASURES = {"bust_girth": "92", "waist_girth": "74", "height": "168", "high_bust_girth": "87"}


FAILED = pytest.StashKey[bool]()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item, call):
    report = yield
    item.stash[FAILED] = item.stash.get(FAILED, False) or report.failed
    return report


@pytest.fixture
def tab(request, chromium, live_server, settings, tmp_path, monkeypatch):
    from studio.storage import photos

    monkeypatch.setattr(photos, "folder", lambda: tmp_path / "photos")
    settings.LONG_WORK_HERE = True
    if not (ROOT / "web" / "dist" / "index.html").exists():
        pytest.fail("the front end is not built: make test builds it")
    context = chromium.new_context(
        viewport={"width": 1280, "height": 800}, reduced_motion="reduce", accept_downloads=True, locale="en-GB"
    )
    tab = Tab(context, live_server)
    yield tab
    if request.node.stash.get(FAILED, False):
        # What a person would have seen: without it a failure on another machine cannot be told.
        print(
            f"\nat {tab.page.url}; asked for: {' '.join(tab.asked[-12:])}\n{tab.page.locator('body').inner_text()[:4000]}"
        )
    complaints = tab.unexpected()
    # Closed before the database is flushed, so that no request is under way then.
    context.close()
    assert complaints == [], " ".join(tab.asked[-8:])


@pytest.fixture
def second_tab(chromium, live_server):
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    yield Tab(context, live_server)
    context.close()
