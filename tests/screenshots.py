"""`make screenshots`: the current picture of each main view, from the demo data, in docs/screenshots."""

import re
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.bench import Served
from tests.browser.conftest import FLAGS

OUT = Path(__file__).parent.parent / "docs" / "screenshots"


def line(page: Page, name: str) -> None:
    x, y = page.locator(f"[data-line='{name}']").first.evaluate(
        "e => { const p = e.getPointAtLength(e.getTotalLength() / 2).matrixTransform(e.getScreenCTM()); return [p.x, p.y] }"
    )
    page.mouse.move(x, y)


def take(page: Page, name: str) -> None:
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)
    page.screenshot(path=OUT / f"{name}.png", animations="disabled")


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    served = Served()
    try:
        with sync_playwright() as playwright:
            chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
            page = chromium.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce", locale="en-GB")
            views(page, served.url)
            chromium.close()
    finally:
        served.close()


def views(page: Page, url: str) -> None:
    page.goto(url)
    page.locator("a.ticket").first.wait_for()
    take(page, "bench")
    jobs = [re.search(r"/jobs/[^/]+", a.get_attribute("href") or "")[0] for a in page.locator("a.ticket").all()]
    page.goto(f"{url}{jobs[1]}/measure")
    page.locator("[data-measure=high_bust_girth]").fill("34")
    page.locator("[data-measure=waist_girth]").fill("64.8")
    page.locator("[data-measure=across_back]").focus()
    take(page, "measure")
    page.goto(f"{url}{jobs[0]}/draft")
    take(page, "draft-ease")
    page.goto(f"{url}{jobs[2]}/draft?panel=sums")
    page.wait_for_load_state("networkidle")
    line(page, "front.neck")
    page.locator("[data-sum=neck_depth]").scroll_into_view_if_needed()
    take(page, "draft-sums")
    page.goto(f"{url}{jobs[0]}/draft?panel=checks")
    take(page, "draft-checks")
    page.goto(f"{url}{jobs[0]}/fit")
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Muslin 1", exact=True).click()
    take(page, "fit-old-under-new")
    page.goto(f"{url}{jobs[1]}/fit")
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Bust dart points beside, above or below the bust", exact=True).last.click()
    page.get_by_label("The wearer’s words").fill("it pokes when I lean to the strings")
    take(page, "fit-remedy")
    page.goto(f"{url}{jobs[0]}/cut")
    take(page, "cut")
    page.evaluate("localStorage.setItem('izett-dim', 'yes'); localStorage.setItem('izett-unit', 'in')")
    page.goto(f"{url}{jobs[1]}/draft?panel=sums")
    take(page, "evening-inches")


if __name__ == "__main__":
    main()
