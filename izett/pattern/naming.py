"""Names of the pattern in words.

What a draft draws is called by its part (`front.armhole`); what a step makes begins with the step's own name
(`s-2cee598c9d.princess_front`), which tells two alike apart and says nothing to a reader.
"""

import re

#: Names of steps as the page and the demo make them, with the numbers of steps worked within them, before a name or after it.
STEP = re.compile(r"^s-?[0-9a-f]{10}(\.\d+)*\.|_s-?[0-9a-f]{10}$")


def readable(name: str) -> str:
    """Return the name of a line, dart, seam or piece in words.

    >>> readable("front.bust_dart_2"), readable("s-2cee598c9d.princess_front"), readable("cuff_s-2cee598c9d")
    ('front bust dart 2', 'princess front', 'cuff')
    """
    return STEP.sub("", name).replace(".", " ").replace("_", " ")
