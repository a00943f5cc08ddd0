"""The usual cautions, short, by the place where they apply. They defer to local rules and to qualified people."""

CAUTIONS: dict[str, tuple[str, ...]] = {
    "measure": (
        "Ask before touching; the wearer may hold the tape, or have a third person in the room.",
        "Measures are personal: they stay on this machine until you export or delete them.",
    ),
    "fit": (
        "Count pins and needles before the muslin goes on, and again when it comes off.",
        "Ask before touching, pinning or taking a photo; points of pins lie away from the body.",
        "Let the wearer sit down between movements; long fittings are tiring.",
    ),
    "reduction": (
        "Waist reduction is chosen and staged: lace slowly, stop at pain, numbness, short breath or dizziness. Not while "
        "pregnant, after surgery, or with a heart, lung, stomach or spine condition without a physician’s word; not for "
        "children.",
    ),
    "wrap": (
        "Wrap over a thin shirt, never the neck, loosely enough to breathe deeply; with somebody beside the wearer, who stands "
        "no longer than twenty minutes and may sit or stop at any time. Stop at heat, faintness, numbness or short breath.",
        "Cut it off with blunt-tipped scissors, away from the skin, along a line that was drawn for it. Not on broken skin, on a "
        "child, while pregnant, or with a heart, lung or skin condition without a physician’s word.",
    ),
    "graded": (
        "A drape is of one body. Grading carries its widths and lengths to another, level by level; its shape stays hers, and "
        "every piece is marked as graded. Fit a muslin before any cloth is cut.",
    ),
    "cut": (
        "Measure both test squares on the print before any cloth is cut.",
        "Mind rotary blades, hot irons and steam; sewing over pins can break needles: protect your eyes.",
    ),
}
