"""`make screenshots`: the current picture of each main view, from the demo data, in docs/screenshots."""

from pathlib import Path

import pypdfium2
from playwright.sync_api import Page, sync_playwright

from tests.bench import Served
from tests.browser.conftest import FLAGS
from tests.builds import sheet_of_builds

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
    page.goto(f"{url}{jobs[0]}/measure?view=time")
    page.locator("[data-comparison]").wait_for()
    take(page, "measure-sheets-over-time")
    page.goto(f"{url}{jobs[1]}/measure?view=files")
    page.get_by_role("button", name="Scan").click()
    take(page, "measure-in-and-out")
    page.goto(f"{url}/sizes")
    take(page, "sizes")
    three_builds(page, url)
    sheet = page.request.get(f"{url}/api/wearers").json()[0]["newest"]["id"]
    printed = pypdfium2.PdfDocument(page.request.get(f"{url}/api/sheets/{sheet}/files/pdf").body())
    printed[0].render(scale=1.3).to_pil().save(OUT / "measure-printed.png")


def three_builds(page: Page, url: str) -> None:
    """Draw the three wearers of the demo beside each other, to one scale: the figure follows the girths."""
    wearers = sorted(
        (w for w in page.request.get(f"{url}/api/wearers").json() if not w["size"]),
        key=lambda w: next(r["cm"] for r in w["newest"]["readings"] if r["symbol"] == "bust_girth"),
    )
    drawn, left = [], 0.0
    for wearer in wearers:
        cm = {r["symbol"]: r["cm"] for r in wearer["newest"]["readings"]}
        figure = page.request.get(f"{url}/api/sheets/{wearer['newest']['id']}/figure").json()
        words = ", ".join(f"{name} {cm[f'{name}_girth']:.0f}" for name in ("bust", "waist", "hip"))
        drawn.append(f'<text x="{left + 22}" y="191" font-size="4.2">{words}, height {cm["height"]:.0f} cm</text>')
        for view, wide in (("front", 62), ("side", 46)):
            left += wide / 2
            drawn.append(f'<g transform="translate({left} 74) scale(1 -1)">{outline(figure, view)}</g>')
            left += wide / 2
    body = f'<svg viewBox="0 0 {left} 196" width="1280" font-family="sans-serif">{"".join(drawn)}</svg>'
    page.set_content(f'<body style="margin:0;background:#fdfcf8">{body}</body>')
    page.screenshot(path=OUT / "three-builds.png", clip={"x": 0, "y": 0, "width": 1280, "height": 1280 * 196 / left})


def outline(figure: dict, view: str) -> str:
    def d(line: list) -> str:
        return "M" + "L".join(f"{x} {y}" for x, y in line)

    tapes = "".join(
        f'<path d="{d(tape["line"])}" fill="none" stroke="#2f5f92" stroke-width="0.5"/>'
        for symbol in ("bust_girth", "waist_girth", "hip_girth")
        for tape in figure["tapes"][symbol]
        if tape["view"] == view
    )
    details = "".join(
        f'<path d="{d(line)}" fill="none" stroke="#999" stroke-width="0.3"/>' for line in figure["details"][view]
    )
    return f'<path d="{d(figure["outlines"][view])}Z" fill="#eeebe4" stroke="#222" stroke-width="0.5"/>{details}{tapes}'


def drafting(page: Page, url: str, job: dict[str, str]) -> None:
    page.goto(f"{url}{job['Concert dress, fitted top']}/draft")
    take(page, "draft-ease")
    page.goto(f"{url}{job['Concert trousers']}/draft?panel=block")
    take(page, "draft-blocks")
    dress = f"{url}{job['Long black recital dress']}/draft"
    page.goto(f"{dress}?panel=schools")
    page.get_by_role("button", name="Lay under: Drafted from").first.click()
    page.locator("[data-under]").first.wait_for()
    take(page, "draft-schools")
    page.goto(f"{dress}?panel=hand")
    page.get_by_label("Where the drawing stands").fill("50")
    take(page, "draft-by-hand")


def builds(page: Page) -> None:
    """Draw all builds on one sheet."""
    svg, width, height = sheet_of_builds()
    page.set_content(f'<body style="margin:0;background:#e9ece3">{svg}</body>')
    page.screenshot(path=OUT / "builds.png", clip={"x": 0, "y": 0, "width": width, "height": height}, full_page=True)


def views(page: Page, url: str) -> None:
    page.goto(url)
    page.locator("a.ticket").first.wait_for()
    take(page, "bench")
    bench = page.request.get(f"{url}/api/bench").json()
    job = {ticket["garment"]: f"/jobs/{ticket['id']}" for ticket in bench}
    jobs = [job[name] for name in ("Concert dress, fitted top", "Black recital bodice", "Soft concert jacket, block")]
    measuring(page, url, jobs)
    drafting(page, url, job)
    builds(page)
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
