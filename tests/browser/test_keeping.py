"""The bench keeps the good tickets beside a bad one, deletes one by itself, and reminds of a backup."""

import json
from datetime import timedelta
from pathlib import Path

from django.utils import timezone
from playwright.sync_api import expect

from studio.models import Job, Revision, Wearer


def test_a_ticket_that_cannot_be_read_is_carried_out_and_deleted_beside_the_others(tab):
    tab.new_ticket(garment="Recital bodice")
    tab.new_ticket(garment="Velvet jacket", name="Ilse Marrow")
    head = Job.objects.get(garment="Velvet jacket").head
    Revision.objects.filter(pk=head.pk).update(document={**head.document, "lining": "silk"})
    tab.open("/")
    page = tab.page
    page.get_by_text("has an entry “lining”, which this version does not know").wait_for()
    page.get_by_text("cut a first muslin").wait_for()
    with page.expect_download() as download:
        page.get_by_role("link", name="Carry it out as it is").click()
    assert download.value.suggested_filename == "velvet-jacket.izett-job.json"
    carried = json.loads(Path(download.value.path()).read_text(encoding="utf-8"))
    assert carried["revisions"][-1]["recipe"]["lining"] == "silk"
    tab.button("Delete “Velvet jacket”…").click()
    tab.button("Keep").click()
    assert Job.objects.count() == 2
    tab.button("Delete “Velvet jacket”…").click()
    tab.button("Delete “Velvet jacket”", exact=True).click()
    page.get_by_text("Velvet jacket").first.wait_for(state="detached")
    page.get_by_role("link", name="Recital bodice").click()
    page.locator("[data-piece]").first.wait_for()
    assert Wearer.objects.count() == 2


def test_after_a_week_without_a_backup_the_bench_says_so_and_makes_one(tab):
    tab.new_ticket()
    tab.open("/")
    assert tab.button("Make a backup now").count() == 0
    Wearer.objects.update(created=timezone.now() - timedelta(days=9))
    tab.open("/")
    tab.page.get_by_text("There is no backup of 9 days of work.").wait_for()
    with tab.page.expect_download() as download:
        tab.page.get_by_role("link", name="Carry everything out as one file").click()
    everything = json.loads(Path(download.value.path()).read_text(encoding="utf-8"))
    assert [wearer["name"] for wearer in everything["wearers"]] == ["Odile Varn"]
    tab.button("Make a backup now").click()
    tab.page.get_by_text("Backup written: izett-").wait_for()
    tab.open("/")
    assert tab.button("Make a backup now").count() == 0


def test_what_is_tried_stays_on_a_full_disk_and_is_kept_once_there_is_room(tab, monkeypatch):
    from django.db import OperationalError

    tab.expect_complaint(r"507")
    tab.new_ticket()
    before = tab.state()

    def full(*args, **kwargs):
        raise OperationalError("database or disk is full")

    with monkeypatch.context() as disk:
        disk.setattr("studio.actions.revise.add_revision", full)
        tab.field("Bust ease").fill("8")
        tab.field("Bust ease").press("Enter")
        tab.page.get_by_text("The disk is full").wait_for()
        tab.page.get_by_text("trying, not kept yet").wait_for()
        expect(tab.field("Bust ease")).to_have_value("8")
        assert tab.state()["version"] == before["version"]
    with tab.keeping():
        tab.page.get_by_role("button", name="Do it again").click()
    assert tab.state()["recipe"]["overrides"] == {"bust_ease": 8.0}


def test_a_lost_cookie_is_renewed_by_itself(tab):
    tab.expect_complaint(r"403")
    tab.new_ticket()
    tab.page.context.clear_cookies()
    tab.field("Bust ease").fill("8")
    with tab.keeping():
        tab.field("Bust ease").press("Enter")
    assert tab.state()["recipe"]["overrides"] == {"bust_ease": 8.0}


def test_a_sheet_in_two_windows_is_not_written_over(tab):
    tab.expect_complaint(r"412")
    tab.begin_measuring()
    tab.measure("bust_girth", "92")
    tab.settle()
    other = tab.page.context.new_page()
    other.goto(tab.page.url)
    other.locator("[data-measure=waist_girth]").fill("74")
    other.wait_for_load_state("networkidle")
    tab.measure("height", "168")
    tab.page.get_by_text("This sheet was gone on with elsewhere").wait_for()
    tab.button("Show what stands there").click()
    assert tab.page.locator("[data-measure=waist_girth]").input_value() == "74"
