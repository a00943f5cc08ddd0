"""Amounts and names in the maker's words, for step descriptions. Lengths in cm; the screen shows the reader's own unit."""

from izett.pattern.naming import readable


def signed(cm: float, more: str, less: str) -> str:
    """Return '0.6 cm more' words: `more` or `less` by the sign, with the amount."""
    return f"{more if cm >= 0 else less} {abs(cm):.2f}".rstrip("0").rstrip(".") + " cm"


def line_words(lineage: str) -> str:
    """Return 'the front shoulder' for `front.shoulder`."""
    return f"the {readable(lineage)}"


def dart_words(name: str) -> str:
    """Return 'the front bust dart' for `front.bust_dart`, 'the front bust darts' for `front.bust`."""
    words = line_words(name)
    return words if "dart" in words else f"{words} darts"
