"""Eight garments, each from a fresh ticket, by pointing and choosing in at most thirty actions, until everything agrees."""

import pytest

from tests.browser import test_styling
from tests.browser.test_styling import BODY, UPPER, stage, steps

pytestmark = pytest.mark.django_db(transaction=True)

#: What a maker does on the page after the draft: pointing, choosing, an amount, keeping, a stage, a fix.
MOST_ACTIONS = 30


class Maker:
    """Somebody at the table, who counts what they do."""

    def __init__(self, tab, garment, blocks, **readings):
        self.tab, self.page, self.actions = tab, tab.page, 0
        self._ticket(garment, blocks, readings or BODY)
        self.stage("Style")

    def _ticket(self, garment, blocks, readings):
        """A fresh ticket, with what its blocks ask for of these readings."""
        tab = self.tab
        tab.open("/new")
        tab.field("For whom").select_option("new")
        tab.field("Name").fill("Odile Varn")
        tab.field("Garment").fill(garment)
        tab.field("Blocks").select_option(blocks)
        tab.button("On to measuring").click()
        self.page.locator("[data-measure]").first.wait_for()
        for symbol, text in readings.items():
            if self.page.locator(f"[data-measure={symbol}]").count():
                tab.measure(symbol, text)
        tab.button("Keep the sheet and draft").click()
        self.page.wait_for_url("**/draft*")
        self.page.locator("[data-piece]").first.wait_for()

    def stage(self, name):
        stage(self.page, name)
        self.actions += 1

    def add(self, thing, words, **amounts):
        """Point, choose, enter, keep."""
        test_styling.add(self.tab, thing, words, **amounts)
        self.actions += 3 + len(amounts)

    def fix(self, words):
        """Take a remedy that a check offers."""
        with self.tab.keeping():
            self.page.get_by_role("button", name=words).first.click()
        self.tab.settle()
        self.actions += 1

    def told(self):
        """What the checks tell and the maker would have to look at."""
        self.page.locator("aside li").first.wait_for()
        odd = self.page.locator("aside li").filter(has=self.page.get_by_role("button", name="Accept…"))
        return odd.all_inner_texts()

    def agrees(self, *kinds):
        """Everything agrees, after these steps, in no more actions than a maker has patience for."""
        assert self.told() == []
        self.page.get_by_text("Everything agrees").wait_for()
        assert [kind for kind, _ in steps(self.tab)] == list(kinds)
        assert self.page.get_by_text("a step is skipped").count() == 0
        assert self.actions <= MOST_ACTIONS


def test_a_boxy_t_shirt_dress(tab):
    maker = Maker(tab, "Boxy T-shirt dress", "t_shirt")
    maker.add("Knit top front: front side", "Straighten this line")
    maker.add("Knit top front: front shoulder", "Drop the shoulder over the arm")
    maker.add("Knit top front: front armhole", "Add a reach wedge")
    maker.add(
        "Knit top front: front hem", "Lengthen or shorten the hem",
        longer_at_the_centre_front="35", longer_at_the_side_seams="35", longer_at_the_centre_back="35",
    )  # fmt: skip
    maker.add("Knit top front: front neck", "Add: neckband")
    maker.stage("Check")
    # The sleeve follows the armhole that the wedge draws.
    maker.agrees("true_line", "change_shoulder", "reach_wedge", "shape_hem", "add_band")


def test_a_fit_and_flare_princess_top_with_waist_ties(tab):
    maker = Maker(tab, "Fit-and-flare top", "torso")
    maker.add("Torso front: front armhole", "Princess line from here")
    maker.add("Torso back: back armhole", "Princess line from here")
    maker.add("Torso front, centre panel: front hem", "Flare all panels from the waist", wider_at_the_hem="5")
    maker.add(
        "Torso front, centre panel: front hem", "Lengthen or shorten the hem",
        longer_at_the_centre_front="4", longer_at_the_side_seams="-3", longer_at_the_centre_back="4",
    )  # fmt: skip
    maker.add("Torso back, side panel: back side", "Add: ties, here in the back side")
    maker.stage("Check")
    maker.fix("Open it with a zip in the back centre")
    maker.agrees("princess", "princess", "flare", "shape_hem", "add_tie", "open_up")


def test_a_long_cardigan_with_bishop_sleeves_and_bands(tab):
    maker = Maker(tab, "Long cardigan", "t_shirt")
    maker.add("Knit top front: front hem", "Lengthen or shorten the hem",
              longer_at_the_centre_front="25", longer_at_the_side_seams="25", longer_at_the_centre_back="25")  # fmt: skip
    maker.add("Knit sleeve: sleeve hem", "Add fullness here, stopping at the elbow", added_to_the_edge="14")
    maker.add("Knit sleeve: sleeve hem", "Add: cuff", so_many_times="0.6")
    maker.add("Knit top front: front centre", "Add: front band, round the neck and down both fronts")
    maker.add("Knit top front: front hem", "Add: hem band")
    maker.add("Knit top front: front centre", "Mark button places")
    maker.stage("Check")
    maker.agrees("shape_hem", "spread_piece", "add_band", "add_band", "add_band", "button_places")


def test_a_high_low_gathered_dress(tab):
    maker = Maker(tab, "High–low dress", "dress")
    for dart in ("front waist dart", "back waist dart", "back waist dart 2"):
        maker.add(f"Skirt {dart.split()[0]}: skirt {dart}", "Turn into gathers")
    maker.add(
        "Skirt front: skirt front waist", "Add fullness here, hinged at the skirt front hem",
        added_to_the_edge="14", added_to_the_opposite="14",
    )  # fmt: skip
    maker.add("Skirt front: skirt front hem", "High–low hem")
    maker.add("Skirt front: skirt front hem", "Add: ruffle")
    maker.add("Bodice front: front side", "Zip, on through the waist")
    maker.add("Skirt back: skirt back centre", "Slit with a flounce")
    maker.stage("Check")
    maker.agrees(*["convert_dart"] * 3, "spread_piece", "shape_hem", "add_band", "open_up", "add_gore")


def test_a_strapless_sweetheart_bodice(tab):
    maker = Maker(tab, "Strapless bodice", "bodice", **UPPER, underbust_girth="80")
    maker.add("Bodice front: front armhole", "Princess line from here")
    maker.add("Bodice back: back armhole", "Princess line from here")
    maker.add("Bodice front, centre panel: princess front", "Contour it for a close fit without straps")
    maker.add("Bodice front, centre panel: front neck", "Cut off the straps: sweetheart edge")
    maker.stage("Check")
    maker.fix("Open it with a zip in the back centre")
    maker.agrees("princess", "princess", "contour", "upper_edge", "open_up")


def test_pleated_trousers_with_a_waistband(tab):
    maker = Maker(tab, "Pleated trousers", "trousers")
    maker.add("Trouser front: trouser front waist dart", "Turn into soft tucks")
    maker.add("Trouser front: trouser front waist", "Add: waistband", longer_at_the_end="3")
    maker.stage("Check")
    maker.fix("Open it with a zip")
    maker.fix("Walk the seam and carry its notches over")
    maker.agrees("convert_dart", "add_band", "open_up", "match_notches")


def test_a_knit_pencil_skirt_with_elastic(tab):
    maker = Maker(tab, "Knit pencil skirt", "knit_skirt")
    maker.add("Knit pencil skirt: knit skirt hem", "Lengthen or shorten the hem",
              longer_at_the_centre_front="6", longer_at_the_side_seams="6", longer_at_the_centre_back="6")  # fmt: skip
    maker.add("Knit pencil skirt: knit skirt top", "Add: elastic ring")
    maker.stage("Check")
    maker.agrees("shape_hem", "add_band")


def test_a_straight_cut_shirt_with_a_pocket(tab):
    maker = Maker(tab, "Straight-cut shirt", "straight_shirt")
    maker.add("Shirt body", "Add: patch pocket")
    maker.stage("Check")
    maker.agrees("add_copy")
