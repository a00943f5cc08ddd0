"""Amounts and names in the maker's words, for step descriptions: as quantities and marks, shown where they are read."""

from izett.pattern.naming import readable
from izett.wording import cm, named


def signed(length: float, more: str, less: str) -> str:
    """Return '0.6 cm more' words: `more` or `less` by the sign of a length in cm, with the amount."""
    return f"{more if length >= 0 else less} {cm(abs(length), 2)}"


def line_words(lineage: str, *, begins: bool = False) -> str:
    """Return 'the front shoulder' for `front.shoulder`; `begins` where a sentence begins with it."""
    return f"{'The' if begins else 'the'} {readable(lineage)}"


def dart_words(reference: str, *, begins: bool = False) -> str:
    """Return 'the front bust dart' for `front.bust_dart`, or for the darts of a family."""
    return f"{'The' if begins else 'the'} {named(reference, 'darts')}"
