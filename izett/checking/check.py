"""What a check is: a claim about the garment, with craft tolerances as parameters, and findings with place and numbers."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

from pydantic import BaseModel, ConfigDict, Field

from izett.pattern.document import Pattern, Piece
from izett.pattern.remembered import Remembered


class CheckParams(BaseModel):
    """The craft tolerances of a check."""

    model_config = ConfigDict(frozen=True, extra="forbid")


def tolerance(default: float, *, low: float, high: float, unit: str, meaning: str) -> Any:
    """Declare a craft tolerance with its default, range, unit and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": unit})


class Verdict(StrEnum):
    """What a check says of one subject."""

    PASSES = "passes"
    WARNS = "warns"
    FAILS = "fails"
    NOT_APPLICABLE = "not_applicable"
    ACCEPTED = "accepted"


@dataclass(frozen=True, slots=True)
class Mend:
    """A step that would mend a finding: its kind and parameters, in words."""

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
        mends: steps that would mend it, the likeliest first.
    """

    verdict: Verdict
    where: tuple[str, ...]
    amount: float
    tolerance: float
    unit: str = "cm"
    aspect: str = ""
    mends: tuple[Mend, ...] = ()


@dataclass(frozen=True, slots=True)
class Garment:
    """What is checked: the pattern with what it is meant to be, and the body (cm) it is for."""

    pattern: Pattern
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
        mend: what would mend it, in words.
        by_piece: whether each finding depends on one piece only, so that an untouched piece need not be read again.
    """

    key: str
    claim: str
    params: type[CheckParams]
    find: Callable[[Garment, Any], Iterator[Finding]]
    word: Callable[[Finding], str]
    mend: str
    by_piece: bool = False


@dataclass(frozen=True, slots=True)
class Result:
    """A finding with its check, as listed on screen and in files."""

    check: str
    claim: str
    finding: Finding
    words: str
    mend: str
    reason: str = ""


def run(check: Check, garment: Garment) -> list[Result]:
    """Return what a check finds with its default tolerances; what the maker accepts is so marked, with the reason."""
    params = check.params()
    if not check.by_piece:
        return [_result(check, garment, f) for f in check.find(garment, params)]
    found: list[Finding] = []
    for piece in garment.pattern:
        found += _of_piece(check, piece, garment, params)
    return [_result(check, garment, f) for f in found]


_read: Remembered[tuple[Finding, ...]] = Remembered()


def _of_piece(check: Check, piece: Piece, garment: Garment, params: CheckParams) -> tuple[Finding, ...]:
    def alone() -> tuple[Finding, ...]:
        return tuple(check.find(Garment(replace(garment.pattern, pieces=(piece,), seams=()), garment.body), params))

    return _read.of(piece, check.key, alone)


def _result(check: Check, garment: Garment, finding: Finding) -> Result:
    words = check.word(finding)
    if finding.verdict in (Verdict.WARNS, Verdict.FAILS):
        for accepted in garment.pattern.accepted:
            if (
                accepted.check == check.key
                and accepted.where == finding.where
                and abs(finding.amount) <= accepted.up_to
            ):
                taken = replace(finding, verdict=Verdict.ACCEPTED)
                return Result(check.key, check.claim, taken, words, check.mend, accepted.reason)
    return Result(check.key, check.claim, finding, words, check.mend)


def verdict(amount: float, allowed: float, *, otherwise: Verdict = Verdict.FAILS) -> Verdict:
    """Return `passes` where the size of `amount` is within `allowed`, else `otherwise`."""
    return Verdict.PASSES if abs(amount) <= allowed else otherwise
