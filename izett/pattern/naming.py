"""Names in sentences: a thing is named by a mark, and called by its title where somebody reads it."""

from collections import ChainMap
from collections.abc import Mapping

from izett.pattern.document import Pattern
from izett.wording import named, titled


def readable(name: str) -> str:
    """Return the mark of a line, a dart, a seam or a piece for a sentence.

    >>> readable("front.bust_dart")
    '⟦=front.bust_dart⟧'
    """
    return named(name)


def titles_of(*patterns: Pattern) -> Mapping[str, str]:
    """Return what the things of patterns are called in words."""
    first, *others = patterns
    return ChainMap(*(dict(p.in_words) for p in patterns)) if any(p is not first for p in others) else first.in_words


def in_titles(text: str, *patterns: Pattern) -> str:
    """Return a sentence about patterns with the titles of their things in it."""
    return titled(text, titles_of(*patterns)) if "⟦=" in text else text
