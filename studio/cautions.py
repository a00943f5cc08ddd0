"""The usual cautions, short, by the place where they apply. They defer to local rules and to qualified people."""

MOVEMENTS = ("stand", "sit", "reach forward", "arms up", "bend", "walk a step", "an hour of ordinary work")

CAUTIONS: dict[str, tuple[str, ...]] = {
    "measure": (
        "Ask before touching; the wearer may hold the tape, or have a third person in the room.",
        "Measures are personal: they stay on this machine until you export or delete them.",
    ),
    "fit": (
        "Count pins and needles before the muslin goes on, and again when it comes off.",
        "Let the wearer sit down between movements; long fittings are tiring.",
    ),
    "cut": (
        "Measure both test squares on the print before any cloth is cut.",
        "Mind rotary blades, hot irons and steam; sewing over pins can break needles: protect your eyes.",
    ),
}
