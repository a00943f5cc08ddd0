"""A lay plan as an `izett-lay` file: where everything lies on the cloth, in cm, x across it from its left edge."""

import json
from typing import Any

from izett.cutting.cloth import sold
from izett.cutting.lay.plan import Plan
from izett.files.cloth_json import cloth_data
from izett.units import Unit

#: Decimals of a centimetre that are written: far finer than outlines are.
DECIMALS = 6


def lay_data(plan: Plan, *, unit: Unit = Unit.CM) -> dict[str, Any]:
    """Return a plan as it stands in a file; `unit` is what the shop sells by."""
    return {
        "format": "izett-lay",
        "version": 1,
        "unit": Unit.CM.value,
        "cloth": cloth_data(plan.cloth),
        "fold": plan.fold.value,
        "length": round(plan.length, DECIMALS),
        "bought": round(sold(plan.bought, unit=unit), DECIMALS),
        "utilisation": round(plan.utilisation, DECIMALS),
        "decides": plan.decides.cutout.piece if plan.decides else None,
        "sections": [
            {
                "fold": laid.section.bed.fold.value,
                "layers": laid.section.bed.layers,
                "width": laid.section.bed.width,
                "from": laid.start,
                "length": laid.length,
                "cloth": laid.cloth,
                "strips": [[strip.left, strip.right] for strip in laid.section.bed.strips],
                "folds": [strip.fold for strip in laid.section.bed.strips if strip.fold is not None],
            }
            for laid in plan.laid
        ],
        "placed": [
            {
                "piece": one.spot.cutout.piece,
                "copy": one.spot.cutout.copy,
                "turn": one.turn,
                "flipped": one.flipped,
                "on_fold": one.spot.cutout.on_fold,
                "layers": one.spot.cutout.layers,
                "section": one.section,
                "outline": [[round(x, DECIMALS), round(y, DECIMALS)] for x, y in one.outline.tolist()],
            }
            for one in plan.placed
        ],
    }


def write_lay(plan: Plan, *, unit: Unit = Unit.CM) -> str:
    """Return a plan as a file."""
    return json.dumps(lay_data(plan, unit=unit)) + "\n"
