"""Garments built from their blocks in the browser, by pointing and choosing, until everything agrees."""

import pytest

from tests.browser.test_styling import BODY, UPPER, add, pieces, point_at, stage, steps

pytestmark = pytest.mark.django_db(transaction=True)


def agreed(tab, *, opened_at=None):
    """Go to the checks; open the garment with a click where it is asked for; return what else is told."""
    page = tab.page
    stage(page, "Check")
    page.locator("aside li").first.wait_for()
    if opened_at is not None:
        with tab.keeping():
            page.get_by_role("button", name=f"Open it with a zip in the {opened_at}").first.click()
        tab.settle()
    return page.locator("aside li").filter(has=page.get_by_role("button", name="Accept…")).all_inner_texts()


def test_a_gathered_neckline_with_its_binding(tab):
    tab.new_ticket("Gathered blouse", blocks="bodice", **UPPER)
    page = tab.page
    stage(page, "Style")
    add(tab, "Bodice front: front neck", "Wider or deeper, round", deeper_at_the_centre_front="4")
    add(tab, "Bodice front: front bust dart", "Move it to the front neck")
    add(tab, "Bodice front: front bust dart", "Turn into gathers")
    add(tab, "Bodice front: front neck", "Add: bias binding")
    assert [kind for kind, _ in steps(tab)] == ["change_neckline", "move_dart", "convert_dart", "add_band"]
    # How full it is stands beside the step; the binding is as long as both necklines.
    page.locator("[data-step]", has_text="Turn the front bust dart into gathers").get_by_text("ratio").wait_for()
    page.locator("[data-step]", has_text="Bias binding").get_by_text("finished length").wait_for()
    assert agreed(tab, opened_at="back centre") == []
    page.get_by_text("Everything agrees").wait_for()


def test_a_drop_shoulder_tee_with_a_reach_wedge_comes_out_in_agreement(tab):
    tab.new_ticket("Rehearsal tee", blocks="t_shirt", **{**UPPER, "hip_girth": BODY["hip_girth"]})
    page = tab.page
    stage(page, "Style")
    add(tab, "Knit top front: front shoulder", "Drop the shoulder over the arm")
    # The sleeve no longer fits: the check says so, and offers to cap it again.
    told = agreed(tab)
    assert any("armhole" in words for words in told)
    assert page.get_by_role("button", name="Re-cap by height").count()
    stage(page, "Style")
    # A wedge has the sleeve follow the armhole by itself.
    add(tab, "Knit top front: front armhole", "Add a reach wedge")
    assert agreed(tab) == []
    stage(page, "Style")
    add(tab, "Knit top front: front neck", "Add: neckband")
    assert [kind for kind, _ in steps(tab)] == ["change_shoulder", "reach_wedge", "add_band"]
    (_, dropped), *_ = steps(tab)
    assert dropped["sides"] > 0, "a dropped shoulder takes wider sides along"
    assert agreed(tab) == []


def test_an_a_line_skirt_in_inches_by_keyboard(tab):
    """Darts closed to the hem, the flare added to at the sides; what is left of the darts may lean."""
    tab.new_ticket("A-line skirt", blocks="skirt", **{k: BODY[k] for k in ("waist_girth", "hip_girth", "height")})
    page = tab.page
    page.get_by_text("inches", exact=True).click()
    stage(page, "Style")
    for half in ("front", "back"):
        point_at(page, f"Skirt {half}: skirt {half} waist dart")
        move = page.get_by_role("button", name=f"Move it to the skirt {half} hem", exact=True)
        move.focus()
        page.keyboard.press("Enter")
        page.locator("form.step").wait_for()
        with tab.keeping():
            page.get_by_role("button", name="Keep this step").press("Enter")
        page.locator("form.step").wait_for(state="detached")
        add(tab, f"Skirt {half}: skirt {half} waist dart", "Turn into cloth that hangs loose")
    add(tab, "Skirt front: skirt front side", "Flare the side seams to the hem", at_the_hem="1 1/2")
    assert steps(tab)[-1][1]["hem"] == pytest.approx(1.5 * 2.54)
    # The darts that are left turned with the paper: that is no fault.
    assert agreed(tab, opened_at="skirt back centre") == []


def test_a_dartless_top_keeps_room_in_its_armhole(tab):
    tab.new_ticket("Loose shell", blocks="bodice_sleeve", **UPPER)
    page = tab.page
    stage(page, "Style")
    add(tab, "Bodice front: front bust dart", "Move half of it to the front armhole")
    add(tab, "Bodice front: bust dart", "Turn into room left in the armhole")
    add(tab, "Bodice front: front bust dart", "Move it to the front waist")
    for dart in ("front bust dart", "front waist dart"):
        add(tab, f"Bodice front: {dart}", "Turn into cloth that hangs loose")
    add(tab, "Bodice back: back waist dart", "Turn into cloth that hangs loose")
    assert page.locator("[data-dart]").count() == 0
    told = agreed(tab)
    assert any("cap" in words for words in told), "the armhole is longer: the sleeve is told to follow"
    with tab.keeping():
        page.get_by_role("button", name="Re-cap by width").first.click()
    tab.settle()
    assert not [r for r in agreed(tab) if "cap" in r.split("\n")[0]]


def test_a_step_without_a_place_to_act_is_kept_and_says_why(tab):
    """A dart turned into gathers first, moved after: the later step is skipped visibly, and acts again when moved up."""
    tab.new_ticket("Shell", blocks="bodice", **UPPER)
    page = tab.page
    stage(page, "Style")
    add(tab, "Bodice front: front bust dart", "Move it to the front shoulder")
    add(tab, "Bodice front: front bust dart", "Turn into gathers")
    assert "bodice_front" in pieces(page)
    moved = page.locator("[data-step]").first
    with tab.keeping():
        moved.get_by_role("button", name="Later", exact=False).first.click()
    page.get_by_text("Skipped:", exact=False).wait_for()
    page.get_by_text("There is no front bust dart here", exact=False).first.wait_for()
    with tab.keeping():
        page.keyboard.press("Control+z")
    page.get_by_text("Skipped:", exact=False).wait_for(state="detached")
    assert page.locator("[data-step]").first.inner_text().split("\n")[1].startswith("Move the front bust dart")
