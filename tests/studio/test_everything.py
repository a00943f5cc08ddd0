"""Everything as one open file: written, and read into an empty studio."""

import json
from copy import deepcopy

import pytest
from django.core.management import CommandError, call_command
from django.db import transaction
from django.test import override_settings

from studio.carrying.out import everything
from studio.models import Job, Wearer

pytestmark = pytest.mark.django_db


@pytest.fixture(scope="module")
def demo(tmp_path_factory, django_db_setup, django_db_blocker):
    """The file of everything of the demo, and of what it does not have: a rule, a chart, a sheet under way."""
    file = tmp_path_factory.mktemp("demo") / "all.json"
    with django_db_blocker.unblock(), override_settings(LONG_WORK_HERE=True), transaction.atomic():
        call_command("demo")
        call_command("export", file)
        transaction.set_rollback(True)
    document = json.loads(file.read_text(encoding="utf-8"))
    document["house_rules"] = [
        {"symbol": "bust_ease", "value": 7.5, "reason": "we like it so", "since": "2026-11-20T08:00:00Z"}
    ]
    chart = {"38": {"bust_girth": {"text": "88", "unit": "cm"}, "waist_girth": {"text": "27 1/2", "unit": "in"}}}
    document["charts"] = [{"title": "Ours", "source": "", "sizes": chart, "created": "2026-11-20T08:00:00Z"}]
    assert document["cloths"], "the demo has cloths on its shelf"
    document["wearers"][0]["under_way"] = {
        "taken_on": "2026-11-26", "taken_by": "helper", "worn": "", "prepared": ["belt"], "place": "waist_girth",
        "readings": {"bust_girth": {"text": "92 or so", "unit": "cm", "again": []}}, "version": 3,
    }  # fmt: skip
    return document


@pytest.fixture
def document(demo):
    """A copy to be spoilt."""
    return deepcopy(demo)


def read_in(document, folder):
    file = folder / "in.json"
    file.write_text(json.dumps(document), encoding="utf-8")
    call_command("import", file)


def test_what_was_written_is_read_in_and_written_the_same(document, tmp_path):
    assert document["format"] == "izett-studio"
    hanneke = next(wearer for wearer in document["wearers"] if wearer["name"] == "Hanneke Oduvale")
    # A sheet that no job was drafted from is there too.
    assert [sheet["number"] for sheet in hanneke["sheets"]] == [1, 2]
    assert sum(len(wearer["jobs"]) for wearer in document["wearers"]) == 10
    read_in(document, tmp_path)
    assert {**everything(), "written": document["written"]} == document
    with pytest.raises(CommandError, match="holds work already"):
        read_in(document, tmp_path)
    assert everything()["wearers"] == document["wearers"]


def test_a_job_that_cannot_be_read_is_left_out_in_words_and_holds_up_no_other(document, tmp_path, capsys):
    bad = next(wearer for wearer in document["wearers"] if wearer["jobs"])["jobs"][0]
    bad["revisions"][0]["recipe"]["unheard_of"] = 1
    read_in(document, tmp_path)
    assert Job.objects.count() == 9
    said = capsys.readouterr().err
    assert f"“{bad['garment']}”" in said
    assert "unheard_of" in said


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda d: d.update(version=2), "version 2"),
        (lambda d: d.update(format="izett-job"), "not a whole izett-studio file"),
        (lambda d: d["house_rules"][0].update(value=1e300), "Bust ease"),
        (lambda d: d["charts"][0]["sizes"]["38"]["bust_girth"].update(text="wide"), "wide"),
        (lambda d: d["wearers"][0].update(sheets=2 * d["wearers"][0]["sheets"]), "2 times"),
    ],
)
def test_a_damaged_file_is_refused_in_words_and_nothing_is_added(document, tmp_path, spoil, says):
    spoil(document)
    with pytest.raises(CommandError, match=says):
        read_in(document, tmp_path)
    assert not Wearer.objects.exists()
