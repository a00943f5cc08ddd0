"""`make bench`: the budgets, measured, each as a ratio to a floor of the same run. Never a timed test.

The floor is a fixed piece of plain Python arithmetic; a slower machine slows both. For the web it is an empty request.
"""

import json
import os
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from statistics import median, quantiles

from tests.core.measuring.completed import whole_sheets
from tests.garments import DRESS
from tests.ports import free_port

ROOT = Path(__file__).parent.parent
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"


def milliseconds(work: Callable[[], object], times: int) -> list[float]:
    found = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        found.append((time.perf_counter() - began) * 1e3)
    return found


def arithmetic() -> float:
    total = 0.0
    for i in range(20_000):
        total += (i % 7) * 0.5
    return total


def row(name: str, found: list[float], floor: float, budget: str) -> None:
    p95 = quantiles(found, n=20)[18] if len(found) > 1 else found[0]
    print(f"{name:<58}{median(found):>9.2f}{p95:>9.2f}{median(found) / floor:>9.1f}   {budget}")


def dressed(body: dict, steps: tuple = ()):
    """The recipe of the full set: bodice, sleeve and skirt."""
    from izett.recipe.model import Recipe

    return Recipe("bodice", body, also=("sleeve", "skirt"), steps=steps)


def edited(evaluator, body: dict, steps: tuple, i: int) -> list[float]:
    """An edit of one step again and again, its first amount a little more each time; none where it has no amount."""
    amount = next((key for key, value in steps[i].params.items() if isinstance(value, float)), None)
    found = []
    for n in range(12 if amount else 0):
        # An opening of no length runs all the way: given one, it is as long as a zip.
        params = {**steps[i].params, amount: (steps[i].params[amount] or 20.0) + (n + 1) / 500}
        changed = (*steps[:i], replace(steps[i], params=params), *steps[i + 1 :])
        found += milliseconds(lambda changed=changed: evaluator.evaluate(dressed(body, changed)).results, 1)
    return found[1:]


def core(floor: float) -> None:
    from izett.catalogue import catalogue
    from izett.pattern.facts import Half
    from izett.recipe.evaluator import Evaluator
    from izett.recipe.model import Recipe, Section, Step
    from studio.collector import settle
    from tests.bodies import measured_women, with_hips

    settle()  # as the server does
    evaluator = Evaluator(catalogue())
    steps = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS))
    cold = []
    for body in with_hips(2):

        def evaluate(body=body) -> None:
            evaluator.forget()
            assert evaluator.evaluate(dressed(body, steps)).results

        cold += milliseconds(evaluate, 1)
    row("evaluate bodice, sleeve, skirt, 15 steps, all checks", cold, floor, "p50 ≤ 35 ms, p95 ≤ 60")
    body = measured_women()[0]
    edits = [edit for i in range(len(steps)) for edit in edited(evaluator, body, steps, i)]
    row("  an edit of any one of the 15 steps", edits, floor, "p50 ≤ 12 ms, p95 ≤ 25")
    for i, name in ((2, "third"), (len(steps) - 1, "last")):
        row(f"  of the {name}", edited(evaluator, body, steps, i), floor, "")
    reasons = []
    for n in range(40):
        said = (*steps[:2], replace(steps[2], why=f"as she asked, {n}"), *steps[3:])
        reasons += milliseconds(lambda said=said: evaluator.evaluate(dressed(body, said)).results, 1)
    row("  a reason typed", reasons, floor, "nothing is worked")
    halves = []
    for body in with_hips(4):
        one_sided = Step("fit", "change_shoulder", {"amount": 0.4}, section=Section.FIT, half=Half.LEFT)
        evaluator.forget()
        evaluator.evaluate(dressed(body, steps))
        evaluator.forget()
        [alike] = milliseconds(lambda body=body: evaluator.evaluate(dressed(body, steps)).results, 1)
        evaluator.forget()
        recipe = dressed(body, (one_sided, *steps))
        [apart] = milliseconds(lambda recipe=recipe: evaluator.evaluate(recipe).results, 1)
        halves.append(100 * (apart / alike - 1))
    row("  what a fit step on one half adds, %", halves, floor, "≤ 50 %")
    bodies = (measured_women() * 2)[:500]

    def draft_all() -> None:
        for one in bodies:
            evaluator.forget()
            assert evaluator.evaluate(dressed(one)).results

    row("500 bodies × the three blocks, with checks", milliseconds(draft_all, 1), floor, "≤ 15 000 ms")
    for blocks in (
        ("torso", "sleeve"),
        ("trousers",),
        ("knit_top", "knit_sleeve"),
        ("knit_skirt",),
        ("straight_shirt",),
    ):
        found = []
        for one in with_hips(16):
            evaluator.forget()
            recipe = Recipe(blocks[0], one, also=blocks[1:])
            found += milliseconds(lambda recipe=recipe: evaluator.evaluate(recipe).results, 1)
        row(f"  {' and '.join(blocks).replace('_', ' ')}, with checks", found, floor, "")


class Served:
    """A server of its own with the demo in it."""

    def __init__(self) -> None:
        port = free_port()
        self.url = f"http://127.0.0.1:{port}"
        self.folder = tempfile.TemporaryDirectory()
        environment = {**os.environ, "IZETT_DATA": self.folder.name}
        manage = [sys.executable, "manage.py"]
        subprocess.run([*manage, "migrate", "--verbosity", "0"], cwd=ROOT, env=environment, check=True)
        subprocess.run([*manage, "demo"], cwd=ROOT, env=environment, check=True)
        began = time.perf_counter()
        self.process = subprocess.Popen(
            [*manage, "serve", "--port", str(port)], cwd=ROOT, env=environment, stdout=subprocess.DEVNULL
        )
        while True:
            try:
                urllib.request.urlopen(self.url + "/", timeout=1)
                break
            except OSError:
                time.sleep(0.02)
        self.started = (time.perf_counter() - began) * 1e3

    def close(self) -> None:
        self.process.kill()
        self.process.wait()
        self.folder.cleanup()


def web(floor: float, served: Served) -> None:
    from http.client import HTTPConnection

    row("start of the server", [served.started], floor, "≤ 3 000 ms")
    connection = HTTPConnection("127.0.0.1", int(served.url.rsplit(":", 1)[1]))
    connection.request("GET", "/")
    page = connection.getresponse()
    cookie = page.headers["Set-Cookie"].split(";")[0]
    page.read()
    headers = {"Cookie": cookie, "X-CSRFToken": cookie.split("=")[1], "Content-Type": "application/json"}

    def ask(method: str, path: str, body: dict | None = None) -> dict:
        connection.request(method, path, body=json.dumps(body) if body is not None else None, headers=headers)
        return json.loads(connection.getresponse().read())

    job = ask("GET", f"/api/jobs/{ask('GET', '/api/bench')[0]['id']}")
    empty = milliseconds(lambda: ask("POST", "/api/numbers", {"text": "1", "unit": "cm"}), 300)
    row("an empty request (one length read)", empty, floor, "floor of the next")
    for against, name in (
        (None, "preview over HTTP, ease changed each time"),
        (1, "the same, compared with a muslin as cut"),
    ):
        known: list[str] = []
        found = []
        for n in range(200):
            recipe = {**job["recipe"], "overrides": {"bust_ease": 4 + n / 100 + (against or 0) / 1000}}
            body = {"sheet": job["sheet"]["id"], "recipe": recipe, "known": known, "job": job["id"], "against": against}
            began = time.perf_counter()
            answer = ask("POST", "/api/preview", body)
            found.append((time.perf_counter() - began) * 1e3)
            known = answer["order"]
        row(name, found, median(empty), "≤ evaluation + 5 × empty; ratio is to empty")
    readings = {r["symbol"]: {"text": r["text"], "unit": r["unit"]} for r in job["sheet"]["readings"]} | {
        s: {"text": f"{cm:.1f}"} for s, cm in whole_sheets()[3].items() if s not in ("height",)
    }
    judged = milliseconds(lambda: ask("POST", "/api/measures/review", {"readings": readings}), 60)
    row(f"a whole sheet judged at a keystroke ({len(readings)} measures)", judged, median(empty), "ratio is to empty")
    row("what to take next, the first time", [advised(ask, job, 0)], floor, "≤ 2 000 ms")
    row("what to take next, a girth changed", [advised(ask, job, n) for n in range(1, 9)], floor, "≤ 2 000 ms")
    alone = evaluated(job)
    row(f"  the evaluation in it, alone ({len(job['recipe']['steps'])} steps)", alone, floor, "")


def advised(ask: Callable[..., dict], job: dict, n: int) -> float:
    """What to take next of the demo's own chamber dress: from the question to the result, as the page waits for it."""
    readings = {r["symbol"]: {"text": r["text"], "unit": r["unit"]} for r in job["sheet"]["readings"]}
    readings["bust_girth"] = {"text": f"{95 + n / 10:.1f}", "unit": "cm"}
    body = {"uid": f"bench-{n}", "wearer": job["wearer"]["id"], "job": job["id"], "readings": readings}
    began = time.perf_counter()
    work = ask("POST", "/api/measures/advice", body)
    while work["state"] in ("waiting", "running"):
        time.sleep(0.02)
        work = ask("GET", f"/api/long-work/{work['uid']}")
    assert work["state"] == "done", work
    return (time.perf_counter() - began) * 1e3


def evaluated(job: dict) -> list[float]:
    """The same recipes worked out in this process, without any web."""
    from izett.catalogue import catalogue
    from izett.files.recipe_json import RecipeDoc
    from izett.recipe.evaluator import Evaluator

    evaluator = Evaluator(catalogue())
    measures = {r["symbol"]: r["cm"] for r in job["sheet"]["readings"]}
    document = RecipeDoc.model_validate(job["recipe"])
    found = []
    for n in range(200):
        recipe = document.model_copy(update={"overrides": {"bust_ease": 4 + n / 100}}).recipe(measures)
        found += milliseconds(lambda recipe=recipe: evaluator.evaluate(recipe).results, 1)
    return found


#: Milliseconds of one frame, over thirty: what a paint costs at least.
FRAME = """async () => {
  const began = performance.now();
  for (let i = 0; i < 30; i++) await new Promise(requestAnimationFrame);
  return (performance.now() - began) / 30;
}"""


def browser(served: Served) -> None:
    from playwright.sync_api import sync_playwright

    from tests.browser.conftest import FLAGS

    script = """async () => {
      const thumb = document.querySelector('[role=slider]');
      const path = document.querySelector('[data-piece=bodice_front] .paper');
      const found = [];
      thumb.focus();
      for (let n = 0; n < 60; n++) {
        const before = path.getAttribute('d');
        const began = performance.now();
        thumb.dispatchEvent(new KeyboardEvent('keydown', { key: n % 20 < 10 ? 'ArrowRight' : 'ArrowLeft', bubbles: true }));
        while (path.getAttribute('d') === before && performance.now() - began < 2000) await new Promise(requestAnimationFrame);
        await new Promise(requestAnimationFrame);
        found.push(performance.now() - began);
      }
      return found;
    }"""
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        page = chromium.new_page(viewport={"width": 1280, "height": 800})
        page.goto(served.url)
        page.locator("a.ticket").first.click()
        page.wait_for_url("**/fit")
        page.keyboard.press("2")
        page.locator("[role=slider]").first.wait_for()
        page.wait_for_timeout(500)
        found = page.evaluate(script)
        frame = page.evaluate(FRAME)
        row("live edit of an ease, input to paint", found, frame, "p95 ≤ 100 ms; ratio is to one frame")
        styled(chromium, served, frame)
        chromium.close()


#: So many steps a styled recipe has while it is edited.
STEPS = 15
PULL = """async (label) => {
  const pull = document.querySelector(`input[type=range][aria-label^="${label}"]`);
  const path = document.querySelector('[data-piece=bodice_front] .paper');
  const found = [];
  for (let n = 0; n < 60; n++) {
    const before = path.getAttribute('d');
    const began = performance.now();
    pull.value = String(Number(pull.value) + (n % 20 < 10 ? 0.1 : -0.1));
    pull.dispatchEvent(new Event('input', { bubbles: true }));
    while (path.getAttribute('d') === before && performance.now() - began < 2000) await new Promise(requestAnimationFrame);
    await new Promise(requestAnimationFrame);
    found.push(performance.now() - began);
  }
  return found;
}"""


def styled(chromium, served: Served, frame: float) -> None:
    """Edit the third and the last of fifteen steps of a princess dress with a sleeve and a skirt, all checks on."""
    page = chromium.new_page(viewport={"width": 1280, "height": 800})
    page.goto(served.url)
    tickets = page.request.get(served.url + "/api/bench").json()
    job = page.request.get(
        f"{served.url}/api/jobs/{next(t['id'] for t in tickets if 'princess' in t['garment'])}"
    ).json()
    steps = job["recipe"]["steps"]
    further = [("change_shoulder", {"amount": 0.1 * n}) for n in range(1, STEPS - len(steps) + 1)]
    steps += [{"uid": f"b{n}", "kind": kind, "params": params} for n, (kind, params) in enumerate(further)]
    cookie = next(c["value"] for c in page.context.cookies() if c["name"] == "csrftoken")
    page.request.put(
        f"{served.url}/api/jobs/{job['id']}/recipe",
        data={"recipe": job["recipe"], "why": "fifteen steps"},
        headers={"X-CSRFToken": cookie, "If-Match": f'"{job["version"]}"', "Referer": served.url},
    )
    page.goto(f"{served.url}/jobs/{job['id']}/style")
    assert page.locator("[data-step]").first.is_visible() or page.wait_for_selector("[data-step]")
    for words, label, which in (
        ("neckline", "deeper at the centre front", "third"),
        ("Shoulder seam", "longer at the tip", "last"),
    ):
        page.locator("[data-step] .words", has_text=words).last.click()
        page.locator("form.step").wait_for()
        page.wait_for_timeout(500)
        found = page.evaluate(PULL, label)
        row(
            f"live edit of the {which} of {page.locator('[data-step]').count()} steps, all checks",
            found,
            frame,
            "p95 ≤ 100 ms",
        )
        page.locator("form.step").get_by_role("button", name="Leave it").click()


#: Traces a photo in a process of its own: milliseconds of the first look, of a correction after it, and MB at most.
TRACING = """
import json, sys, time
from izett.tracing.known import Known, look_at, picture_from
from izett.tracing.trace import kept_picture, panel_of, trace_of

began = time.perf_counter()
picture = picture_from(open(sys.argv[1], "rb").read())
look = look_at(picture, (float(sys.argv[2]), float(sys.argv[3])), Known())
found = trace_of(look)
panel_of(found, "Front"), kept_picture(picture, found)
looked = time.perf_counter()
kept_picture(picture, trace_of(look))
again = time.perf_counter()
# What the process itself took: `ru_maxrss` has the parent's as well.
most = int(open("/proc/self/status").read().partition("VmHWM:")[2].split()[0]) / 1024
print(json.dumps([(looked - began) * 1e3, (again - looked) * 1e3, most]))
"""


def traced(floor: float) -> None:
    import cv2

    from izett.tracing.camera_stand_in import Shot
    from tests.draped import truth_of
    from tests.pictured import pencilled, pictured

    piece = truth_of("bustier", {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}).pieces[0]
    taken = pictured(piece, shot=Shot(width=4000, height=3000), pencil=pencilled(piece, 8, seed=1))
    with tempfile.TemporaryDirectory() as folder:
        photo = Path(folder) / "photo.jpg"
        cv2.imwrite(str(photo), taken.picture)
        command = [sys.executable, "-c", TRACING, str(photo), *(str(n) for n in taken.tap)]
        runs = [json.loads(subprocess.run(command, check=True, capture_output=True, cwd=ROOT).stdout) for _ in range(3)]
    first, again, most = (list(column) for column in zip(*runs, strict=True))
    row("a photo of 12 megapixels traced, its library loaded", first, floor, "≤ 4 s")
    row("the same with a correction over it", again, floor, "≤ 1 s")
    print(f"{'MB that tracing takes at most':<58}{max(most):>9.0f}{'':>18}   ≤ 1,000")


#: A plan within this share of the last one is as good as that to whoever waits.
NEARLY = 0.05


def laid(floor: float) -> None:
    from izett.cutting.cloth import Cloth, Fold
    from izett.cutting.lay.search import plans
    from tests import laying

    for cut, width, budget in ((12, 140, "≤ 3 000 ms"), (43, 150, "≤ 20 000 ms")):
        wanted = laying.drafted(cut)
        for fold in (Fold.OPEN, Fold.LENGTHWISE):
            began = time.perf_counter()
            found = [
                ((time.perf_counter() - began) * 1e3, plan.length)
                for plan in plans(wanted, Cloth(width=width), fold=fold)
            ]
            took = (time.perf_counter() - began) * 1e3
            shortest = found[-1][1]
            near = next(at for at, length in found if length <= shortest * (1 + NEARLY))
            name = f"{cut} cut pieces, {fold.replace('_', ' ')}"
            row(f"lay plan of {name}: first within 5 %", [near], floor, budget)
            row("  until it is the last", [took], floor, "≤ 20 000 ms" if cut > 12 else "")


def main() -> None:
    floor = median(milliseconds(arithmetic, 50))
    print(f"floor: {floor:.2f} ms of plain arithmetic; threads {threading.active_count()}")
    print(f"{'':<58}{'p50 ms':>9}{'p95 ms':>9}{'ratio':>9}   budget")
    core(floor)
    traced(floor)
    laid(floor)
    served = Served()
    try:
        web(floor, served)
        browser(served)
    finally:
        served.close()


if __name__ == "__main__":
    main()
