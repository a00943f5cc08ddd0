"""Limits that a person never meets: beyond them a deed is refused in words, before it costs time, memory or the file."""

from studio.problems import Refusal

#: Bytes of a job's file. It is what can be exported: what a job holds is kept below it, so that it can come in again.
LARGEST_FILE = 64 * 1024 * 1024
#: Characters of a name, a note, and a line of a job's story.
LONGEST_NAME, LONGEST_NOTE, LONGEST_STORY = 120, 4000, 4400
#: Of a wearer: sheets, and measures on each; each may be taken left and right.
MOST_SHEETS, MOST_READINGS_ON_A_SHEET = 1000, 200
#: Of a job: states of its recipe, muslins, findings of a muslin, lines of its story.
MOST_REVISIONS, MOST_ROUNDS, MOST_FINDINGS, MOST_LOG_LINES = 10_000, 200, 500, 30_000
#: Photos of a finding and of a job: some 400 kB each, so that a job's file stays below its size. Entries of time; minutes
#: that a clock runs before it must have been forgotten; steps that are kept as a wearer's fit.
MOST_PHOTOS, MOST_PHOTOS_OF_A_JOB, MOST_SPELLS, LONGEST_SPELL, MOST_KEPT_FITS = 6, 60, 5_000, 12 * 60, 100
#: Sheets of paper of one print.
MOST_PAGES = 400
#: Tickets on the bench, wearers, charts.
MOST_JOBS, MOST_WEARERS, MOST_CHARTS = 5_000, 5_000, 200
#: Cloths on the shelf.
MOST_CLOTHS = 1_000
#: Plot files in the plotter's queue, done ones among them.
MOST_PLOTS = 20


def refuse_more(count: int, most: int, what: str) -> None:
    """Let pass a number of things that is not beyond its limit.

    Raises:
        Refusal: it is.
    """
    if count > most:
        raise Refusal(
            409,
            "too-many",
            f"There can be {most} {what} at most.",
            fix="Delete what is not needed any more, or open another ticket.",
        )
