"""The story of a job's fittings, told from what was kept; and the forecast from all that this studio has fitted."""

from collections.abc import Mapping, Sequence
from datetime import date, datetime

from pydantic import ValidationError

from izett.errors import IzettError
from izett.fitting.compare import moves
from izett.fitting.finding import Outcome, Taken, finding_kinds
from izett.fitting.forecast import Course, Forecast, forecast
from izett.fitting.story import (
    OUTCOMES,
    ChangeTold,
    FindingTold,
    MovedTold,
    RoundTold,
    Story,
    amounts_told,
    halves_told,
)
from izett.pattern.document import Pattern
from izett.wording import named
from studio.fittings import marks_of, remedy_title, seen_of
from studio.models import Finding, Job, Round
from studio.muslins import as_cut
from studio.problems import Refusal
from studio.state import head_of
from studio.workroom import evaluate_revision

#: Lines that are told of what moved, the farthest first.
MOVED_TOLD = 4
SECONDS_A_DAY = 86_400


def story_of(job: Job) -> Story:
    """Return the story of a job."""
    rounds = list(job.rounds.order_by("number").prefetch_related("findings__answers__round", "findings__photos"))
    spells = list(job.spells.all())
    revisions = list(job.revisions.defer("document", "standing").order_by("number"))
    whys = {why for round_ in rounds for finding in round_.findings.all() for why in [remedy_title(finding)] if why}
    between = _between(rounds, [(r.created, r.why) for r in revisions if r.why and r.why not in whys])
    steps = _steps_of(job)
    return Story(
        garment=job.garment,
        wearer=job.wearer.name,
        due=job.due,
        minutes=sum(spell.minutes or 0 for spell in spells),
        before=between[0],
        rounds=tuple(
            _round(
                job,
                round_,
                rounds[at + 1 :],
                between[at + 1],
                steps,
                sum(s.minutes or 0 for s in spells if s.round == round_.number),
            )
            for at, round_ in enumerate(rounds)
        ),
        forecast=forecast_of(job),
    )


def _between(rounds: Sequence[Round], changes: Sequence[tuple[datetime, str]]) -> list[tuple[ChangeTold, ...]]:
    """Return the changes by what they came after: the start, or a muslin's cutting."""
    found: list[list[ChangeTold]] = [[] for _ in range(len(rounds) + 1)]
    for at, why in changes:
        found[sum(round_.opened <= at for round_ in rounds)].append(ChangeTold(at, why))
    return [tuple(part) for part in found]


def _steps_of(job: Job) -> Mapping[str, str]:
    """Return each step of the job in words, by name: as it stands now."""
    try:
        evaluation = evaluate_revision(head_of(job))
    except (IzettError, ValidationError):
        return {}
    return {stage.step.uid: stage.words for stage in evaluation.stages}


def _round(
    job: Job,
    round_: Round,
    later: Sequence[Round],
    changes: tuple[ChangeTold, ...],
    steps: Mapping[str, str],
    minutes: int,
) -> RoundTold:
    return RoundTold(
        number=round_.number,
        opened=round_.opened,
        closed=round_.closed,
        cloth=round_.cloth,
        worn=round_.worn,
        note=round_.note,
        minutes=minutes,
        pins=f"{round_.pins_in} pins in, {round_.pins_out if round_.pins_out is not None else 'none'} out"
        if round_.pins_in is not None
        else "",
        findings=tuple(_finding(finding, steps) for finding in round_.findings.all()),
        changes=changes,
        moved=_moved(job, round_, later[0] if later else None),
    )


def _finding(finding: Finding, steps: Mapping[str, str]) -> FindingTold:
    kind = finding_kinds().get(finding.kind)
    title = remedy_title(finding)
    own = [steps[uid] for uid in (*finding.steps, *(one["uid"] for one in finding.amended)) if uid in steps]
    gone = bool(title) and bool(finding.steps) and not own
    return FindingTold(
        seen=seen_of(finding),
        half=halves_told(finding.side),
        amounts=amounts_told(
            kind, finding.given, Taken(finding.taken), finding.counted, marked=marks_of(finding), line=finding.line
        )
        if kind
        else (),
        movement=finding.movement,
        words=finding.words,
        done=((f"{title}{' (taken back)' if gone else ''}.", *own) if title else ()),
        left=f"Normal for this cut: {finding.normal}" if finding.normal else ("" if title else "Left as it was."),
        proved=tuple((a.round.number, OUTCOMES[Outcome(a.outcome)]) for a in finding.answers.all()),
        photos=tuple(str(photo.uid) for photo in finding.photos.all()),
    )


def _moved(job: Job, round_: Round, later: Round | None) -> tuple[MovedTold, ...]:
    """Return what moved most between this muslin and the next, or the pattern as it is now."""
    try:
        before = as_cut(job.id, round_.number)
        after: Pattern = as_cut(job.id, later.number) if later else evaluate_revision(head_of(job)).pattern
    except (IzettError, Refusal, ValidationError):
        return ()
    return tuple(
        MovedTold(m.piece, after.title_of(m.lineage) or named(m.lineage), m.distance)
        for m in moves(before, after)
        if not m.leg
    )[:MOVED_TOLD]


def forecast_of(job: Job, today: date | None = None) -> Forecast | None:
    """Return when a job may be through its fittings, from all other garments that were fitted here; None with too little."""
    others: dict[object, list[Round]] = {}
    for round_ in Round.objects.exclude(job=job).defer("as_cut").prefetch_related("findings").order_by("number"):
        others.setdefault(round_.job_id, []).append(round_)
    done = job.rounds.filter(closed__isnull=False).count()
    courses = [_course(rounds) for rounds in others.values()]
    return forecast(courses, done=done, today=today or date.today(), due=job.due)


def _course(rounds: Sequence[Round]) -> Course:
    """Return the fittings of one garment; it is finished where the last muslin was closed and changed nothing more."""
    ends = [*(one.opened for one in rounds[1:]), rounds[-1].closed]
    days = tuple(
        (end - one.opened).total_seconds() / SECONDS_A_DAY for one, end in zip(rounds, ends, strict=True) if end
    )
    last = rounds[-1]
    finished = last.closed is not None and not any(finding.remedy for finding in last.findings.all())
    return Course(days, finished)
