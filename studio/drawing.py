"""Pieces as the table shows them: control points and short lines, each piece under a key of its content."""

from hashlib import blake2b
from math import degrees
from typing import Any

from izett.finishing.sheet import SheetPiece
from izett.pattern.levels import AROUND
from izett.pattern.piece import Piece, dart_angle, mouth_width
from izett.pattern.placed import PLACES
from studio.table_schemas import DartOut, DiamondOut, EdgeOut, LineOut, PieceOut

#: What the page calls a line at which a raw edge is turned under.
TURNING = "turning"


def drawn(sheet: SheetPiece, key: str, *, cut: bool) -> PieceOut:
    """Return a piece ready for the table, under its key; with its cutting line where that is wanted."""
    piece = sheet.piece
    return PieceOut(
        name=piece.name,
        title=piece.title,
        part=piece.part,
        zone=piece.zone.value,
        region=piece.region.value,
        half=piece.half.value,
        layer=piece.layer.value,
        cut=piece.cut,
        key=key,
        on_fold=piece.on_fold,
        edges=[
            EdgeOut(
                role=edge.role.value,
                lineage=edge.lineage,
                start=edge.start,
                end=edge.end,
                curve=list(edge.curve.points),
                length=edge.curve.length,
                allowance=sheet.allowances.of(piece, edge),
            )
            for edge in piece.edges
        ],
        darts=[_dart(piece, drawing) for drawing in sheet.darts],
        marks=dict(piece.marks),
        diamonds=[
            DiamondOut(name=d.name, outline=[*outline], intake=d.intake)
            for d, outline in zip(piece.diamonds, sheet.diamonds, strict=True)
        ],
        lines=[
            *(
                LineOut(level=x.level, around=x.level in AROUND, place=x.level in PLACES, points=list(x.points))
                for x in piece.lines
            ),
            *(LineOut(level=TURNING, around=False, points=list(points)) for points in sheet.turnings if cut),
        ],
        notches=list(sheet.notches),
        grain=sheet.grain,
        cutting=list(sheet.cutting) if cut else [],
        label=list(sheet.label),
    )


def _dart(piece: Piece, drawing: Any) -> DartOut:
    dart = piece.dart(drawing.name)
    return DartOut(
        name=dart.name,
        family=dart.family,
        sewn=drawing.sewn,
        legs=list(drawing.legs),
        cap=list(drawing.cap),
        mouth=mouth_width(piece, dart),
        angle=degrees(dart_angle(piece, dart)),
    )


def piece_key(sheet: SheetPiece, *, cut: bool) -> str:
    """Return a key that changes with anything that is drawn of the piece."""
    piece = sheet.piece
    content = (
        piece.name,
        piece.title,
        (piece.zone, piece.region, piece.half, piece.layer),
        piece.on_fold,
        piece.edges,
        piece.darts,
        piece.diamonds,
        dict(piece.marks),
        piece.lines,
        sheet.turnings if cut else (),
        sheet.notches,
        piece.grain,
        [sheet.allowances.of(piece, edge) for edge in piece.edges],
        cut,
        sheet.label,
    )
    return blake2b(repr(content).encode(), digest_size=12).hexdigest()
