"""The garment as a step has it before it: every question is kept with its answer, the step's changes lie over it.

A step reads a pattern only through a `Working`. What it asks falls through to the pattern unless the step itself has
changed it, and is kept in a `Record`; what it changes is kept as `Changes`. So whatever a step did can be done again
without working it, on any pattern that gives the same answers; and what depends on what is known, not guessed.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from izett.pattern.alike import SAME, alike
from izett.pattern.document import (
    PLACES,
    Accepted,
    CutFor,
    Intent,
    Machine,
    Opening,
    Pattern,
    Seam,
    in_words,
    runs_along,
)
from izett.pattern.facts import Region, Role, SeamKind, Zone
from izett.pattern.piece import Piece, Span, darts_on, has_level, has_lineage, has_role, is_of_block, things_on
from izett.pattern.record import OWN, Asked, Record, asked_of


@dataclass(frozen=True, slots=True)
class Changes:
    """What a step changed on the pattern before it.

    Attributes:
        pieces: what lies in the place of a piece now, by that piece's name; nothing where it is gone.
        added: pieces that are new beside them.
        seams: seams replaced, by name; None where one is gone.
        sewn: seams that are new.
        links: corners linked, or no longer linked (None).
        ease, fullness: what the ease and the fullness of a level are moved by, cm total around.
        along: the spans that levels are measured along now; None where a level has none any more.
        openings, accepted, machine, allowances: as they are now, where they changed.
    """

    pieces: Mapping[str, tuple[Piece, ...]] = field(default_factory=dict)
    added: tuple[Piece, ...] = ()
    seams: Mapping[str, Seam | None] = field(default_factory=dict)
    sewn: tuple[Seam, ...] = ()
    links: Mapping[str, str | None] = field(default_factory=dict)
    ease: Mapping[str, float] = field(default_factory=dict)
    fullness: Mapping[str, float] = field(default_factory=dict)
    along: Mapping[str, tuple[Span, ...] | None] = field(default_factory=dict)
    openings: tuple[Opening, ...] | None = None
    accepted: tuple[Accepted, ...] | None = None
    machine: Machine | None = None
    allowances: CutFor | None = None

    def on(self, pattern: Pattern, *, uid: str = "") -> Pattern:
        """Return a pattern with the changes laid on; what is new is called in words, without the step's own name."""
        pieces = (*(new for p in pattern.pieces for new in self.pieces.get(p.name, (p,))), *self.added)
        seams = (*(s for seam in pattern.seams if (s := self.seams.get(seam.name, seam)) is not None), *self.sewn)
        links, along = {**pattern.links, **self.links}, {**pattern.intent.along, **self.along}
        intent = pattern.intent.with_ease(self.ease) if self.ease else pattern.intent
        intent = intent.with_fullness(self.fullness) if self.fullness else intent
        if self.along:
            intent = replace(intent, along={k: spans for k, spans in along.items() if spans is not None})
        return replace(
            pattern,
            pieces=pieces,
            seams=seams,
            intent=intent,
            links={k: v for k, v in links.items() if v is not None} if self.links else pattern.links,
            openings=pattern.openings if self.openings is None else self.openings,
            accepted=pattern.accepted if self.accepted is None else self.accepted,
            machine=self.machine or pattern.machine,
            allowances=self.allowances or pattern.allowances,
            titles=self._titles(pattern, uid),
        )

    def _titles(self, pattern: Pattern, uid: str) -> Mapping[str, str]:
        new = [name for parts in (*self.pieces.values(), self.added) for piece in parts for name in things_on(piece)]
        new += [seam.name for seam in self.sewn]
        made = {name: in_words(_label(name, uid)) for name in new if name not in pattern.titles}
        return {**pattern.titles, **made} if made else pattern.titles


def _label(name: str, uid: str) -> str:
    """Return the part of a made name that says something: without the step's name, and the numbers of steps within it."""
    rest = name
    while uid and (shorter := rest.removeprefix(f"{uid}.")) != rest:
        rest = shorter
        first, _, after = rest.partition(".")
        if first.isdigit() and after:
            rest = after
    return rest


NOTHING = Changes()


class Working:
    """A pattern with a step's own changes over it; what is asked of the pattern is kept in the record.

    Args:
        base: the pattern before the step.
        record: where questions are kept.
        of: which half's pattern it is, as the record calls it.
        changes: the step's own.
    """

    def __init__(
        self, base: Pattern, record: Record | None = None, *, of: str = OWN, changes: Changes = NOTHING
    ) -> None:
        self._base = base
        self.record = record if record is not None else Record()
        self._of = of
        self.changes = changes
        self._own = [piece for parts in changes.pieces.values() for piece in parts] + list(changes.added)

    def _ask(self, question: str, about: Any = None) -> Any:
        return self.record.answer(Asked(self._of, question, about), lambda: asked_of(self._base, question, about))

    def read(self, reading: Callable[[Pattern, Any], Any], about: Any) -> Any:
        """Return a reading of the pattern as it was before the step: only its result is kept, not what it looked at."""
        return self.record.answer(Asked(self._of, reading, about), lambda: reading(self._base, about))

    def touches(self, vertices: Iterable[str]) -> bool:
        """Return whether the step changed a piece that holds one of some vertices."""
        if self.changes is NOTHING:
            return False
        names = tuple(vertices)
        was = [piece for name in self.changes.pieces if (piece := self._ask("find_piece", name)) is not None]
        return any(piece.holds(name) for piece in (*self._own, *was) for name in names)

    def _with(self, **changed: Any) -> "Working":
        return Working(self._base, self.record, of=self._of, changes=replace(self.changes, **changed))

    def before(self) -> "Working":
        """Return the garment without the step's own changes."""
        return self if self.changes is NOTHING else Working(self._base, self.record, of=self._of)

    @property
    def is_as_it_was(self) -> bool:
        """Whether the step changed nothing by more than the rounding of a number."""
        now = self.changes
        if now.added or now.sewn or any(seam is None for seam in now.seams.values()):
            return False
        if any(
            len(parts) != 1 or not alike(self._ask("find_piece", name), parts[0]) for name, parts in now.pieces.items()
        ):
            return False
        seams = all(alike(self._ask("find_seam", name), seam) for name, seam in now.seams.items())
        levels = all(abs(by) <= SAME for by in (*now.ease.values(), *now.fullness.values()))
        settings = (now.openings, now.accepted, now.machine, now.allowances)
        return seams and levels and not (now.links or now.along) and all(each is None for each in settings)

    def since(self, before: "Working") -> tuple[list[Piece], list[Piece]]:
        """Return the pieces that have changed since an earlier state of the same work: as they were, and as they are."""
        own, then = {id(piece) for piece in self._own}, {id(piece) for piece in before._own}
        names = [name for name in self.changes.pieces if name not in before.changes.pieces]
        was = [piece for piece in before._own if id(piece) not in own]
        was += [piece for name in names if (piece := self._ask("find_piece", name)) is not None]
        return was, [piece for piece in self._own if id(piece) not in then]

    # What can be asked.

    def _filtered(self, question: str, about: Any, fits: Callable[[Piece], bool]) -> tuple[Piece, ...]:
        found: tuple[Piece, ...] = self._ask(question, about)
        if self.changes is NOTHING:
            return found
        here = [p for piece in found for p in self.changes.pieces.get(piece.name, (piece,))]
        held = {id(piece) for piece in here}
        return tuple(p for p in (*here, *(o for o in self._own if id(o) not in held)) if fits(p))

    @property
    def pieces(self) -> tuple[Piece, ...]:
        """All pieces. Ask for those that are meant where it can be said which: a step is worked again for no others."""
        found: tuple[Piece, ...] = self._ask("pieces")
        here = tuple(p for piece in found for p in self.changes.pieces.get(piece.name, (piece,)))
        return (*here, *self.changes.added)

    def __iter__(self) -> Iterator[Piece]:
        return iter(self.pieces)

    def with_role(self, role: Role) -> tuple[Piece, ...]:
        """Return the pieces that have an edge of a role."""
        return self._filtered("with_role", role, lambda piece: has_role(piece, role))

    def with_level(self, level: str) -> tuple[Piece, ...]:
        """Return the pieces that a level is drawn on."""
        return self._filtered("with_level", level, lambda piece: has_level(piece, level))

    def with_lineage(self, lineage: str) -> tuple[Piece, ...]:
        """Return the pieces that have an edge of a lineage."""
        return self._filtered("with_lineage", lineage, lambda piece: has_lineage(piece, lineage))

    def in_zone(self, zone: Zone) -> tuple[Piece, ...]:
        """Return the pieces that lie on a zone of the body."""
        return self._filtered("in_zone", zone, lambda piece: piece.zone is zone)

    def of_block(self, block: tuple[Zone, Region]) -> tuple[Piece, ...]:
        """Return the outer pieces of the block that clothes a part of the body, on a zone."""
        return self._filtered("of_block", block, lambda piece: is_of_block(piece, block))

    def of_part(self, part: str) -> tuple[Piece, ...]:
        """Return the pieces that were cut from a draft part."""
        return self._filtered("of_part", part, lambda piece: piece.part == part)

    @property
    def in_words(self) -> Mapping[str, str]:
        """What the things of the pattern before the step are called."""
        found: Mapping[str, str] = self._ask("in_words")
        return found

    def title_of(self, name: str) -> str | None:
        """Return the title of a thing of the pattern before the step, or None."""
        found: str | None = self._ask("title_of", name)
        return found

    def _untouched(self, piece: Piece | None) -> Piece | None:
        return None if piece is None or piece.name in self.changes.pieces else piece

    def find(self, vertex: str) -> Piece | None:
        """Return the piece that holds a vertex, or None."""
        own = next((piece for piece in self._own if piece.holds(vertex)), None)
        return own or self._untouched(self._ask("find", vertex))

    def find_piece(self, name: str) -> Piece | None:
        """Return a piece by name, or None."""
        own = next((piece for piece in self._own if piece.name == name), None)
        return own or self._untouched(self._ask("find_piece", name))

    def with_dart(self, reference: str) -> Piece | None:
        """Return the piece that has a dart of that name, or darts of that family; or None."""
        own = next((piece for piece in self._own if darts_on(piece, reference)), None)
        return own or self._untouched(self._ask("with_dart", reference))

    def holding(self, vertex: str) -> Piece:
        """Return the piece that holds a vertex (KeyError where none does)."""
        piece = self.find(vertex)
        if piece is None:
            raise KeyError(vertex)
        return piece

    def piece(self, name: str) -> Piece:
        """Return a piece by name (KeyError where there is none)."""
        piece = self.find_piece(name)
        if piece is None:
            raise KeyError(name)
        return piece

    @property
    def seams(self) -> tuple[Seam, ...]:
        """All seams."""
        found: tuple[Seam, ...] = self._ask("seams")
        return self._overlaid(found, lambda _: True)

    def _overlaid(self, found: tuple[Seam, ...], fits: Callable[[Seam], bool]) -> tuple[Seam, ...]:
        here = (self.changes.seams.get(seam.name, seam) for seam in found)
        return (*(s for s in here if s is not None and fits(s)), *(s for s in self.changes.sewn if fits(s)))

    def find_seam(self, name: str) -> Seam | None:
        """Return a seam by name, or None."""
        for seam in self.changes.sewn:
            if seam.name == name:
                return seam
        if name in self.changes.seams:
            return self.changes.seams[name]
        found: Seam | None = self._ask("find_seam", name)
        return found

    def seams_of(self, kind: SeamKind) -> tuple[Seam, ...]:
        """Return the seams of a kind."""
        return self._overlaid(self._ask("seams_of", kind), lambda seam: seam.kind is kind)

    def seams_along(self, lineage: str) -> tuple[Seam, ...]:
        """Return the seams that a line is sewn in."""
        found = self._overlaid(self._ask("seams_along", lineage), lambda seam: runs_along(seam, lineage))
        held = {seam.name for seam in found}
        grown = (s for s in self.changes.seams.values() if s is not None and s.name not in held)
        return (*found, *(s for s in grown if runs_along(s, lineage)))

    def link(self, vertex: str) -> str | None:
        """Return the corner at which a line that was cut here goes on, or None."""
        if vertex in self.changes.links:
            return self.changes.links[vertex]
        found: str | None = self._ask("link", vertex)
        return found

    @property
    def links(self) -> Mapping[str, str]:
        """All corners that go on elsewhere."""
        links = {**self._ask("links"), **self.changes.links}
        return {k: v for k, v in links.items() if v is not None}

    @property
    def intent(self) -> Intent:
        """What the garment is meant to be, the ease with what the step moved it by."""
        found: Intent = self._ask("intent")
        found = found.with_ease(self.changes.ease) if self.changes.ease else found
        found = found.with_fullness(self.changes.fullness) if self.changes.fullness else found
        if not self.changes.along:
            return found
        along = {**found.along, **self.changes.along}
        return replace(found, along={level: spans for level, spans in along.items() if spans is not None})

    def ease(self, level: str) -> float | None:
        """Return the ease that is meant at a level, cm total around, or None."""
        found: float | None = self._ask("ease", level)
        more = self.changes.ease.get(level, 0.0)
        if level not in self.changes.ease:
            return found
        return (PLACES.get(level, 0.0) if found is None else found) + more

    @property
    def stretch(self) -> float:
        """How far the cloth stretches, %."""
        found: float = self._ask("stretch")
        return found

    def fullness(self, level: str) -> float:
        """Return what of the width at a level is gathers, pleats or flare, cm total around."""
        found: float = self._ask("fullness", level)
        return max(found + self.changes.fullness.get(level, 0.0), 0.0)

    def along(self, level: str) -> tuple[Span, ...] | None:
        """Return the spans that a level is measured along, or None."""
        if level in self.changes.along:
            return self.changes.along[level]
        found: tuple[Span, ...] | None = self._ask("along", level)
        return found

    @property
    def measured_along(self) -> Mapping[str, tuple[Span, ...]]:
        """The spans of every level that is measured along spans."""
        along = {**self._ask("measured_along"), **self.changes.along}
        return {level: spans for level, spans in along.items() if spans is not None}

    @property
    def levels_meant(self) -> tuple[str, ...]:
        """The levels at which an ease is meant."""
        return tuple(dict.fromkeys((*self._ask("levels_meant"), *self.changes.ease)))

    @property
    def openings(self) -> tuple[Opening, ...]:
        """Where the garment opens."""
        found: tuple[Opening, ...] = self._ask("openings")
        return found if self.changes.openings is None else self.changes.openings

    @property
    def accepted(self) -> tuple[Accepted, ...]:
        """The findings that the maker accepts."""
        found: tuple[Accepted, ...] = self._ask("accepted")
        return found if self.changes.accepted is None else self.changes.accepted

    @property
    def machine(self) -> Machine | None:
        """The allowances on paper and under the needle."""
        found: Machine | None = self._ask("machine")
        return self.changes.machine or found

    @property
    def allowances(self) -> CutFor:
        """What the sheets are cut for."""
        found: CutFor = self._ask("allowances")
        return self.changes.allowances or found

    # What can be changed.

    def with_pieces(self, *changed: Piece) -> "Working":
        """Return the garment with pieces replaced by those of the same name.

        Raises:
            ValueError: the garment has no piece of that name (a programmer's mistake).
        """
        pieces, added = dict(self.changes.pieces), self.changes.added
        for piece in changed:
            held = next((name for name, parts in pieces.items() if any(p.name == piece.name for p in parts)), None)
            if held is not None:
                pieces[held] = tuple(piece if p.name == piece.name else p for p in pieces[held])
            elif any(p.name == piece.name for p in added):
                added = tuple(piece if p.name == piece.name else p for p in added)
            elif (before := self._ask("find_piece", piece.name)) is None:
                raise ValueError(f"the garment has no piece {piece.name}")
            elif before is not piece:
                pieces[piece.name] = (piece,)
        return self._with(pieces=pieces, added=added)

    def with_parts(self, of: Piece, *parts: Piece) -> "Working":
        """Return the garment with a piece replaced by its parts, at its place in the order; gone where there are none."""
        pieces, added = dict(self.changes.pieces), self.changes.added
        held = next((name for name, now in pieces.items() if any(p is of for p in now)), None)
        if held is not None:
            pieces[held] = tuple(new for p in pieces[held] for new in (parts if p is of else (p,)))
        elif any(p is of for p in added):
            added = tuple(new for p in added for new in (parts if p is of else (p,)))
        else:
            self._ask("find_piece", of.name)
            pieces[of.name] = parts
        return self._with(pieces=pieces, added=added)

    def adding(self, *pieces: Piece, seams: tuple[Seam, ...] = (), openings: tuple[Opening, ...] = ()) -> "Working":
        """Return the garment with new pieces, seams and openings."""
        return self._with(
            added=(*self.changes.added, *pieces),
            sewn=(*self.changes.sewn, *seams),
            **({"openings": (*self.openings, *openings)} if openings else {}),
        )

    def with_seam(self, changed: Seam) -> "Working":
        """Return the garment with a seam replaced by the one of the same name."""
        if any(seam.name == changed.name for seam in self.changes.sewn):
            return self._with(sewn=tuple(changed if s.name == changed.name else s for s in self.changes.sewn))
        self._ask("find_seam", changed.name)
        return self._with(seams={**self.changes.seams, changed.name: changed})

    def without_seam(self, gone: Seam) -> "Working":
        """Return the garment without a seam."""
        if any(seam.name == gone.name for seam in self.changes.sewn):
            return self._with(sewn=tuple(s for s in self.changes.sewn if s.name != gone.name))
        self._ask("find_seam", gone.name)
        return self._with(seams={**self.changes.seams, gone.name: None})

    def with_links(self, links: Mapping[str, str | None]) -> "Working":
        """Return the garment with corners linked, or no longer linked (None)."""
        return self._with(links={**self.changes.links, **links})

    def with_ease(self, added: Mapping[str, float]) -> "Working":
        """Return the garment with the ease that is meant moved at some levels, cm total around."""
        now = self.changes.ease
        return self._with(ease={**now, **{level: now.get(level, 0.0) + by for level, by in added.items()}})

    def with_fullness(self, added: Mapping[str, float]) -> "Working":
        """Return the garment with the fullness at some levels moved, cm total around."""
        now = self.changes.fullness
        return self._with(fullness={**now, **{level: now.get(level, 0.0) + by for level, by in added.items()}})

    def with_along(self, along: Mapping[str, tuple[Span, ...] | None]) -> "Working":
        """Return the garment with levels measured along other spans."""
        return self._with(along={**self.changes.along, **along})

    def with_openings(self, openings: tuple[Opening, ...]) -> "Working":
        """Return the garment with other openings."""
        return self._with(openings=openings)

    def with_accepted(self, accepted: tuple[Accepted, ...]) -> "Working":
        """Return the garment with other accepted findings."""
        return self._with(accepted=accepted)

    def with_machine(self, machine: Machine) -> "Working":
        """Return the garment with what the machine sews."""
        return self._with(machine=machine)

    def cut_for(self, allowances: CutFor) -> "Working":
        """Return the garment with other seam allowances."""
        return self._with(allowances=allowances)


#: What is asked alike of a pattern and of a garment that is being worked on.
Readable = Pattern | Working
