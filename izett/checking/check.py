"""What a check is: a claim about the garment, with craft tolerances as parameters, and findings with place and numbers."""

from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

from pydantic import BaseModel, ConfigDict, Field

from izett.pattern.document import ANY_ASPECT, Accepted, Pattern
from izett.pattern.facts import Half
from izett.pattern.halves import origin, titles_on
from izett.pattern.piece import Piece, things_on
from izett.pattern.remembered import Remembered
from izett.pattern.working import Readable
from izett.wording import titled


class CheckParams(BaseModel):
    """The craft tolerances of a check."""

    model_config = ConfigDict(frozen=True, extra="forbid")


def tolerance(default: float, *, low: float, high: float, unit: str, meaning: str) -> Any:
    """Declare a craft tolerance with its default, range, unit and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": unit})


class Verdict(StrEnum):
    """What a check says about one subject."""

    PASSES = "passes"
    WARNS = "warns"
    FAILS = "fails"
    NOT_APPLICABLE = "not_applicable"
    ACCEPTED = "accepted"


#: What is to be looked at.
ODD = (Verdict.WARNS, Verdict.FAILS)


class Worse(StrEnum):
    """In which direction what was found would be worse."""

    MORE = "more"
    LESS = "less"


@dataclass(frozen=True, slots=True)
class Fix:
    """A step that would fix a finding: its kind and parameters, in words."""

    words: str
    kind: str
    params: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Finding:
    """What a check found about one subject.

    Attributes:
        verdict: whether it holds.
        where: names of the seam, edges, darts or pieces concerned.
        amount: what was measured, in `unit`.
        tolerance: what is allowed, in `unit`.
        unit: cm or °.
        aspect: which of the check's questions this is, where it asks several.
        fixes: steps that would fix it, the likeliest first.
        half: the half of the body that it is about, where the halves differ.
        worse: whether more of it, either way, or less of it would be worse.
        beside: a further figure that the words tell.
        side: the side of a seam that it is about, in words.
    """

    verdict: Verdict
    where: tuple[str, ...]
    amount: float
    tolerance: float
    unit: str = "cm"
    aspect: str = ""
    fixes: tuple[Fix, ...] = ()
    half: Half = Half.BOTH
    worse: Worse = Worse.MORE
    beside: float = 0.0
    side: str = ""

    def exceeds(self, bound: float) -> bool:
        """Return whether this is worse than an amount that was accepted."""
        return self.amount < bound if self.worse is Worse.LESS else abs(self.amount) > abs(bound)


@dataclass(frozen=True, slots=True)
class Garment:
    """What is checked: the pattern with what it is meant to be, and the body (cm) it is for."""

    pattern: Readable
    body: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Check:
    """A check.

    Attributes:
        key: stored in documents.
        claim: what holds when it passes, in words.
        params: its tolerances.
        find: yields a finding for each subject.
        word: the one wording of a finding, for screen and command line.
        fix: what would fix it, in words.
        by_piece: whether each finding depends on one piece only, so that an untouched piece need not be read again.
    """

    key: str
    claim: str
    params: type[CheckParams]
    find: Callable[[Garment, Any], Iterator[Finding]]
    word: Callable[[Finding], str]
    fix: str
    by_piece: bool = False


@dataclass(frozen=True, slots=True)
class Result:
    """A finding with its check, as listed on screen and in files."""

    check: str
    claim: str
    finding: Finding
    words: str
    fix: str
    reason: str = ""


def run(check: Check, garment: Garment) -> list[Result]:
    """Return what a check finds with its default tolerances; what the maker accepts is so marked, with the reason."""
    return [told(check, garment.pattern, finding) for finding in found_by(check, garment)]


def found_by(check: Check, garment: Garment) -> list[Finding]:
    """Return what a check finds with its default tolerances, each finding on its half."""
    params = check.params()
    if not check.by_piece:
        return [_on_half(finding) for finding in check.find(garment, params)]
    return [_on_half(f) for piece in garment.pattern.pieces for f in _of_piece(check, piece, garment, params)]


def _on_half(finding: Finding) -> Finding:
    """Return a finding about the right half's own things as one about that half, under the names that both halves share."""
    found = [origin(name) for name in finding.where]
    if all(one.half is Half.BOTH for one in found):
        return finding
    return replace(finding, half=Half.RIGHT, where=tuple(one.name for one in found))


_read: Remembered[tuple[Finding, ...]] = Remembered()


def _of_piece(check: Check, piece: Piece, garment: Garment, params: CheckParams) -> tuple[Finding, ...]:
    def alone() -> tuple[Finding, ...]:
        return tuple(check.find(Garment(Pattern((piece,), (), garment.pattern.intent), garment.body), params))

    return _read.of(piece, check.key, alone)


def told(check: Check, pattern: Readable, finding: Finding) -> Result:
    """Return a finding with its words, accepted where the maker accepts it and it is no worse than that."""
    titles = pattern.in_words
    words = titled(check.word(finding), titles_on(titles, finding.half))
    if finding.half is not Half.BOTH and finding.half.value not in words.lower():
        # Where no title in them says which half it is.
        words = f"{finding.half.value.capitalize()}: {words[:1].lower()}{words[1:]}"
    fixes = tuple(replace(fix, words=titled(fix.words, titles)) for fix in finding.fixes)
    finding = replace(finding, fixes=fixes) if fixes else finding
    if finding.verdict in ODD:
        for accepted in pattern.accepted:
            if _is(accepted, check, finding) and _covers(accepted, finding):
                taken = replace(finding, verdict=Verdict.ACCEPTED)
                return Result(check.key, check.claim, taken, words, check.fix, accepted.reason)
    return Result(check.key, check.claim, finding, words, check.fix)


def told_apart(results: Sequence[Result], pattern: Pattern) -> tuple[Result, ...]:
    """Return results of which no two read alike: those that did name the pieces that they are about."""
    often = Counter(result.words for result in results)
    return tuple(
        replace(result, words=f"{result.words} ({', '.join(named)})")
        if often[result.words] > 1 and (named := _pieces_of(result.finding, pattern))
        else result
        for result in results
    )


def _pieces_of(finding: Finding, pattern: Pattern) -> tuple[str, ...]:
    """Return the titles of the pieces that a finding is about."""
    seams = (pattern.find_seam(name) for name in finding.where)
    lines = {span.along for seam in seams if seam is not None for side in seam.sides for span in side}
    names = {*finding.where, *lines}
    return tuple(piece.title for piece in pattern.pieces if names & {piece.name, *things_on(piece)})


#: The aspect of a result that says that the check itself broke down.
BROKE = "broke"


def unchecked(check: Check) -> Result:
    """Return the result of a check that broke down on a shape that nobody foresaw: it is never taken for agreement."""
    finding = Finding(Verdict.WARNS, (check.key,), 0.0, 0.0, aspect=BROKE)
    return Result(
        check.key,
        check.claim,
        finding,
        "This could not be checked on this shape",
        "Check it by hand on the paper. This is a fault in the program: please report it.",
    )


def _is(accepted: Accepted, check: Check, finding: Finding) -> bool:
    """Return whether an acceptance is about a finding: the check, what it is about, its aspect, half and direction."""
    return (
        (accepted.check, accepted.where) == (check.key, finding.where)
        and accepted.aspect in (finding.aspect, ANY_ASPECT)
        and accepted.half in (finding.half, Half.BOTH)
        and (accepted.aspect == ANY_ASPECT or accepted.worse == finding.worse)
    )


def _covers(accepted: Accepted, finding: Finding) -> bool:
    if accepted.aspect == ANY_ASPECT:
        # As it was meant when there was only one direction: so much, either way.
        return abs(finding.amount) <= abs(accepted.up_to)
    return not finding.exceeds(accepted.up_to)


def verdict(amount: float, allowed: float, *, otherwise: Verdict = Verdict.FAILS) -> Verdict:
    """Return `passes` where the size of `amount` is within `allowed`, else `otherwise`."""
    return Verdict.PASSES if abs(amount) <= allowed else otherwise
