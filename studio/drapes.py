"""Draping as the screens need it: what there is to drape, the tear list, what given panels came to."""

from collections.abc import Mapping

from izett.draping.given import Drawn, drawn
from izett.draping.panel import MOST_GRADED, Given
from izett.draping.seams import SEWN
from izett.draping.tearing import Measured, TearList, ToDrape, drapes, kinds, session, tear_list
from izett.draping.truing import Trued
from izett.draping.wrap import level_sums
from izett.pattern.document import Intent, Pattern
from izett.pattern.sewn import seam_lengths
from studio.drape_schemas import (
    CapOut,
    DrapeOut,
    DrapesOut,
    DrawnLineOut,
    GivenEndOut,
    GivenOut,
    GivenPanelOut,
    GivenSeamOut,
    GuideOut,
    LevelSumOut,
    MuslinBlockOut,
    QueryOut,
    SessionStepOut,
    StripOut,
    TearOut,
)
from studio.form_schemas import FormPanel, OnForm

#: The measures by which shapes are graded: girths by level, and what lies above and below the waist.
GRADED_BY = {
    "bust": "bust_girth",
    "waist": "waist_girth",
    "hip": "hip_girth",
    "above": "back_waist_length",
    "below": "waist_to_hip",
}
#: cm. A cap and an armhole that differ by less are equally long.
AGREED = 0.05


def catalogue_of_drapes() -> DrapesOut:
    """Return what there is to drape, and how a session goes."""
    return DrapesOut(
        drapes=[DrapeOut.model_validate(drape, from_attributes=True) for drape in drapes().values()],
        steps=[
            SessionStepOut(key=f"step_{i}", part=step.part, does=step.does, watch=step.watch)
            for i, step in enumerate(session(), 1)
        ],
        allowances={kind.key: kind.allowance for kind in kinds().values()},
    )


def torn(form: OnForm) -> TearList | None:
    """Return the tear list of what is measured so far; None where nothing is.

    Raises:
        ValueOutOfRange: a block does not fit across the muslin, or nobody measures so.
    """
    measured = [_measured(panel) for panel in form.panels if panel.length and panel.width]
    return tear_list(measured, muslin=form.muslin) if measured else None


def _measured(panel: FormPanel) -> Measured:
    what = ToDrape(panel.key, panel.title or panel.key, panel.kind, panel.hangs, panel.bust)
    return Measured(what, panel.length or 0.0, panel.width or 0.0, panel.train)


def tear_state(form: OnForm) -> TearOut:
    """Return the tear list as the page shows it.

    Raises:
        ValueOutOfRange: a block does not fit across the muslin, or nobody measures so.
    """
    found = torn(form)
    missing = [panel.title or panel.key for panel in form.panels if not (panel.length and panel.width)]
    if found is None:
        return TearOut(muslin=form.muslin, usable=0, length=0, bought=0, strips=[], missing=missing)
    return TearOut(
        muslin=found.muslin,
        usable=found.usable,
        length=found.length,
        bought=found.bought,
        strips=[
            StripOut(
                length=strip.length,
                left=strip.left,
                blocks=[
                    MuslinBlockOut(
                        key=block.panel.key,
                        title=block.panel.title,
                        warp=block.warp,
                        weft=block.weft,
                        allowance=block.allowance,
                        guides=[GuideOut.model_validate(guide, from_attributes=True) for guide in block.guides],
                    )
                    for block in strip.blocks
                ],
            )
            for strip in found.strips
        ],
        missing=missing,
    )


def given_state(given: Given, body: Mapping[str, float]) -> GivenOut | None:
    """Return what given shapes came to on a body; None where there are none."""
    if not given.panels:
        return None
    found = drawn(given)
    offs = [off for _, _, off in found.dots_off]
    return GivenOut(
        panels=[_panel(panel) for panel in found.panels],
        seams=[
            GivenSeamOut(
                name=one.seam.name,
                sides=tuple(GivenEndOut(panel=end.panel, line=end.line) for end in one.of.said.sides),
                words=one.seam.words,
                kind=one.seam.kind.value,
                before=one.before,
                differs=one.differs,
                ease=one.of.said.ease,
                trued=one.trued,
                proposed=one.of.proposed,
            )
            for one in found.seams
        ],
        free=_free(found),
        cubics=sum(panel.cubics for panel in found.panels),
        farthest=max(offs, default=0.0),
        cap=_cap(found),
        around=[
            LevelSumOut(level=one.level, around=one.around, girth=one.girth, agrees=one.agrees)
            for one in level_sums(found.pieces, found.sewn, found.measured_along, body)
        ],
        levels=dict(found.given.levels),
        body={name: body[symbol] for name, symbol in GRADED_BY.items() if symbol in body},
        most_graded=MOST_GRADED,
    )


def _cap(found: Drawn) -> CapOut | None:
    if found.cap is None:
        return None
    armhole, cap = seam_lengths(Pattern(found.pieces, (), Intent()), found.cap)
    return CapOut(armhole=armhole, cap=cap, fits=bool(found.cap.ease[1]) or abs(cap - armhole) < AGREED)


def _free(found: Drawn) -> list[GivenEndOut]:
    """Return the lines that could be sewn to another, and are not."""
    sewn = {(end.panel, end.line) for one in found.seams for end in one.of.said.sides}
    lines = dict.fromkeys(
        (piece.name, edge.lineage.split(".", 1)[1])
        for piece in found.pieces
        for edge in piece.edges
        if edge.role in SEWN
    )
    return [GivenEndOut(panel=panel, line=line) for panel, line in lines if (panel, line) not in sewn]


def _panel(trued: Trued) -> GivenPanelOut:
    panel, piece = trued.panel, trued.piece
    back = trued.frame.inverse()
    lines = []
    for i, line in enumerate(trued.round.lines if piece is not None else ()):
        edge = piece.edges[i]
        fit = trued.fits.get(i)
        lines.append(
            DrawnLineOut(
                name=line.name,
                lineage=edge.lineage,
                role=edge.role.value,
                way=panel.said(line.name).way,
                start=line.start,
                end=line.end,
                points=[back(point) for point in edge.curve.points],
                length=edge.curve.length,
                dots=len(line.dots),
                cubics=fit.cubics if fit is not None else 0,
                farthest=max((trued.off.get(mark, 0.0) for mark in line.dots), default=0.0),
            )
        )
    return GivenPanelOut(
        name=panel.name,
        title=panel.called,
        drawn=piece is not None,
        zone=piece.zone.value if piece else "",
        region=piece.region.value if piece else "",
        fold=piece.on_fold.split(".", 1)[1] if piece and piece.on_fold else "",
        cut=piece.cut if piece else 0,
        lines=lines,
        off=[trued.off.get(i) for i in range(len(panel.marks))],
        spots=[mark.spot for mark in panel.marks],
        queries=[QueryOut.model_validate(query, from_attributes=True) for query in trued.queries],
    )
