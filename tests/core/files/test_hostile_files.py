"""Files that would harm, through the command line: refused in one line, in little time and memory, with nothing written."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from izett.cli import main

ROOT = Path(__file__).parents[3]
#: MB of memory, and seconds of processor time: a clock would count the other tests too.
MEMORY, SECONDS = 300, 2.0
#: A run of the command line that tells how much memory and processor time it took.
RUN = """
import sys
from time import process_time
from izett.cli import main
began = process_time()
code = main(sys.argv[1:])
most = int(open("/proc/self/status").read().partition("VmHWM:")[2].split()[0]) // 1024
print("SPENT", most, process_time() - began)
sys.exit(code)
"""

BOMB = (
    '<?xml version="1.0"?><!DOCTYPE s [<!ENTITY a "aaaaaaaaaa">'
    + "".join(f'<!ENTITY {b} "{f"&{a};" * 10}">' for a, b in zip("abcdefgh", "bcdefghi", strict=True))
    + ']><svg xmlns="http://www.w3.org/2000/svg" width="10mm">&i;</svg>'
)
SVG = '<svg xmlns="http://www.w3.org/2000/svg" width="900mm" height="900mm" viewBox="0 0 900 900">{}</svg>'
BODY = {"bust_girth": 92, "waist_girth": 74, "height": 168}
PIECE = {"name": "a", "title": "A", "part": "a", "cut": 1, "grain": [[0, 0], [0, 9]], "vertices": {}, "edges": []}


@pytest.fixture(scope="module")
def pattern(tmp_path_factory):
    """A pattern as it should be, to be spoilt."""
    folder = tmp_path_factory.mktemp("pattern")
    body = {"format": "izett-measures", "version": 1, "unit": "cm", "readings": BODY}
    (folder / "body.json").write_text(json.dumps(body))
    drafted = ["draft", "--measures", str(folder / "body.json"), "--block", "bodice", "--out", str(folder / "p.json")]
    assert main(drafted) == 0
    return (folder / "p.json").read_text()


def crowded(pattern):
    return json.dumps({**json.loads(pattern), "pieces": [PIECE] * 30_000})


#: What is in each file, made of a pattern as it should be; how the file ends; a word that its refusal has.
SPOILT = {
    "an entity bomb": (lambda _: BOMB, ".svg", "declarations"),
    "a million shapes": (lambda _: SVG.format('<path d="M0 0 L9 9"/>' * 1_000_000), ".svg", "MB"),
    "as many shapes as fit": (lambda _: SVG.format('<path d="M0 0 L9 9"/>' * 190_000), ".svg", "draws"),
    "no number in a path": (lambda _: SVG.format('<path d="M0 0 Lnan nan L5 5 Z"/>'), ".svg", ""),
    "a number without end": (lambda _: SVG.format('<path d="M0 0 L1e999 0 L9 9 Z"/>'), ".svg", "without end"),
    "a picture cut off": (lambda _: SVG.format('<path d="M0 0 L90 0 L90 90 Z"/>')[:-9], ".svg", "damaged"),
    "a million entities": (lambda _: "0\nSECTION\n2\nENTITIES\n" + "0\nLINE\n" * 1_000_000, ".dxf", "MB"),
    "as many entities as fit": (lambda _: "0\nSECTION\n2\nENTITIES\n" + "0\nLINE\n" * 590_000, ".dxf", "entries"),
    "a drawing cut off": (lambda _: "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70", ".dxf", "DXF"),
    "a huge pattern": (lambda _: "[" * 7_000_000, ".json", "MB"),
    "lists without end": (lambda _: "[" * 1_000_000, ".json", "lists"),
    "many numbers": (lambda _: "[" + "1," * 1_550_000 + "1]", ".json", "values"),
    "many small objects": (lambda _: "[" + '{"a":1},' * 299_000 + "{}]", ".json", ""),
    "lists within lists": (lambda _: "[" * 90_000, ".json", "within each other"),
    "many empty lists": (lambda _: "[" + "[]," * 1_500_000 + "[]]", ".json", "lists"),
    "more pieces than a garment has": (crowded, ".json", "pieces"),
    "a pattern with no number": (lambda p: p.replace('"grain": [', '"grain": [NaN, ', 1), ".json", "NaN"),
    "a pattern cut off": (lambda p: p[: len(p) // 2], ".json", "JSON"),
    "a pattern in feet": (lambda p: p.replace('"unit": "cm"', '"unit": "ft"'), ".json", "unit"),
    "a pattern of tomorrow": (lambda p: p.replace('"version": 1', '"version": 99', 1), ".json", "version"),
}


@pytest.mark.parametrize("name", SPOILT)
def test_a_hostile_file_is_refused_in_one_line_in_little_time_and_memory(pattern, tmp_path, name):
    spoil, ending, word = SPOILT[name]
    file, out = tmp_path / f"in{ending}", tmp_path / "out.json"
    file.write_text(spoil(pattern))
    ran = subprocess.run(
        [sys.executable, "-c", RUN, "convert", str(file), str(out)],
        check=False,
        cwd=ROOT,
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert ran.returncode == 2, (ran.stdout[-300:], ran.stderr[-300:])
    assert ran.stderr.count("\n") == 1 and "Traceback" not in ran.stderr
    assert word in ran.stderr and len(ran.stderr) < 600
    assert not out.exists()
    most, took = (float(spent) for spent in ran.stdout.split("SPENT")[1].split())
    assert most < MEMORY and took < SECONDS


def test_a_file_that_is_as_it_should_be_passes(pattern, tmp_path):
    (tmp_path / "in.json").write_text(pattern)
    assert main(["convert", str(tmp_path / "in.json"), str(tmp_path / "out.json")]) == 0
    assert (tmp_path / "out.json").read_text() == pattern
