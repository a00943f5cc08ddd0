"""`make screenshots`: the current picture of each main view, from the demo data, in docs/screenshots."""

from pathlib import Path

import pypdfium2
from PIL import Image
from playwright.sync_api import Page, sync_playwright

from tests.bench import Served
from tests.browser.conftest import FLAGS
from tests.builds import sheet_of_builds
from tests.garments import sheet_of_garments

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


def measuring(page: Page, url: str, jobs: list[str]) -> None:
    page.goto(f"{url}{jobs[1]}/measure")
    page.locator("[data-measure=side_length]").fill("10 1/2 in")
    page.locator("[data-measure=waist_girth]").fill("64.8")
    page.locator("[data-measure=across_back]").focus()
    page.wait_for_timeout(1800)  # advice follows a pause
    take(page, "measure")
    page.goto(f"{url}{jobs[0]}/measure?view=take")
    page.get_by_role("button", name="Begin").click()
    for _ in range(13):
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(80)
    page.locator("#guide-field").fill("35.8")
    take(page, "measure-guided")
    page.goto(f"{url}/sizes")
    take(page, "sizes")
    sheet = page.request.get(f"{url}/api/wearers").json()[0]["newest"]["id"]
    printed_sheets(page, [f"{url}/api/sheets/{sheet}/files/pdf", f"{url}/api{jobs[0]}/fitting-sheet"])


def printed_sheets(page: Page, files: list[str]) -> None:
    """Lay the first sheet of each printed file side by side."""
    sheets = [pypdfium2.PdfDocument(page.request.get(file).body())[0].render(scale=1.3).to_pil() for file in files]
    both = Image.new("RGB", (sum(sheet.width for sheet in sheets), max(sheet.height for sheet in sheets)), "white")
    at = 0
    for sheet in sheets:
        both.paste(sheet, (at, 0))
        at += sheet.width
    both.save(OUT / "printed.png")


def drafting(page: Page, url: str, job: dict[str, str]) -> None:
    page.goto(f"{url}{job['Concert dress, fitted top']}/draft")
    take(page, "draft-ease")
    dress = f"{url}{job['Long black recital dress']}/draft"
    page.goto(f"{dress}?panel=schools")
    page.get_by_role("button", name="Lay under: Drafted from").first.click()
    page.locator("[data-under]").first.wait_for()
    take(page, "draft-schools")


def styling(page: Page, url: str, job: dict[str, str]) -> None:
    chamber = f"{url}{job['Chamber dress, princess line']}"
    page.goto(f"{chamber}/style")
    page.locator("[data-step] .words", has_text="Spread the sleeve hem").click()
    page.locator("form.step").wait_for()
    take(page, "style-step")
    page.goto(f"{chamber}/check")
    page.locator("aside li").first.wait_for()
    take(page, "check")
    page.goto(f"{chamber}/check?panel=walk")
    page.get_by_label("Walked along", exact=False).fill("14")
    take(page, "check-walk")
    page.goto(f"{chamber}/check?panel=ease")
    page.locator("path.at").first.wait_for()
    take(page, "check-ease")


def fitting(page: Page, job: str) -> None:
    page.goto(f"{job}/fit")
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Muslin 1", exact=True).click()
    take(page, "fit-old-under-new")
    page.goto(f"{job}/fit?guide=move:reach%20forward")
    page.get_by_label("What does it show?").fill("back")
    take(page, "fit-busy-hands")
    page.goto(f"{job}/fit?guide=papers&under=muslin-1&over=now")
    page.locator("table.figures tr").first.wait_for()
    take(page, "fit-tracing-paper")


def builds(page: Page) -> None:
    """Draw all builds, and all garments from them under them, on one sheet."""
    (first, width, height), (second, _, more) = sheet_of_builds(), sheet_of_garments()
    sheets = "".join(f'<div style="line-height:0">{svg}</div>' for svg in (first, second))
    page.set_content(f'<body style="margin:0;background:#e9ece3">{sheets}</body>')
    box = {"x": 0, "y": 0, "width": width, "height": height + more}
    page.screenshot(path=OUT / "builds.png", clip=box, full_page=True)


def draping(page: Page, job: str) -> None:
    page.goto(f"{job}/drape?part=marks")
    page.locator("[data-mark='6'] .near").click()
    take(page, "drape")


def views(page: Page, url: str) -> None:
    page.goto(url)
    page.locator("a.ticket").first.wait_for()
    take(page, "bench")
    bench = page.request.get(f"{url}/api/bench").json()
    job = {ticket["garment"]: f"/jobs/{ticket['id']}" for ticket in bench}
    jobs = [job[name] for name in ("Concert dress, fitted top", "Black recital bodice", "Soft concert jacket, block")]
    measuring(page, url, jobs)
    drafting(page, url, job)
    styling(page, url, job)
    builds(page)
    page.goto(f"{url}{jobs[2]}/draft?panel=sums")
    page.wait_for_load_state("networkidle")
    line(page, "front.neck")
    page.locator("[data-sum=neck_depth]").scroll_into_view_if_needed()
    take(page, "draft-sums")
    fitting(page, f"{url}{jobs[0]}")
    draping(page, f"{url}{job['Gala bustier, draped']}")
    page.goto(f"{url}{job['Chamber dress, princess line']}/cut?part=lay")
    page.locator("[data-placed]").first.wait_for()
    take(page, "cut")
    page.evaluate("localStorage.setItem('izett-dim', 'yes'); localStorage.setItem('izett-unit', 'in')")
    page.goto(f"{url}{jobs[0]}/story")
    page.locator("div.story img").first.wait_for()
    take(page, "story-evening-inches")


if __name__ == "__main__":
    main()
