"""Recipes of before made things were always named after their step: their references, as they are called now.

Then a seam or a part took a short name (`princess_front`, `bodice_front_side`) where that was free, and the step's own
behind it where it was not; so switching one step off let a later one act on another's work. Here each reference is bound,
once, to the step that it meant when it was stored.
"""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from izett.catalogue import catalogue
from izett.styling.references import Ref, renamed

#: The blocks that a front or a back of then may have belonged to, as its piece was called.
_BLOCKS = ("bodice", "torso", "knit_top")
#: Steps whose seams and parts had short names.
_FOLLOWS = frozenset({"add_band", "add_facing", "add_gore", "add_copy"})


def named_anew(steps: Sequence[Mapping[str, Any]]) -> list[dict[str, Any]]:
    """Return the steps of an older recipe with every reference to a made thing by its name of now."""
    known: dict[str, str] = {}
    taken: set[str] = set()
    found = []
    for step in sorted(steps, key=lambda step: step["kind"] in _FOLLOWS):
        found.append((step["uid"], _renamed(step, known)))
        if not step.get("on", True):
            continue
        for old, new in _made(step):
            # Where a short name was taken, the step's own stood behind it.
            known[f"{old}_{step['uid']}" if old in taken else old] = new
            taken.add(old)
    by_uid = dict(found)
    return [by_uid[step["uid"]] for step in steps]


def _renamed(step: Mapping[str, Any], known: Mapping[str, str]) -> dict[str, Any]:
    operation = catalogue().operations.get(step["kind"])
    if operation is None or not known:
        return dict(step)
    try:
        params = operation.params.model_validate(operation.upgraded(step["params"], step.get("version", 1)))
    except ValueError:
        # What cannot be understood is kept as it is, and told when it is worked.
        return dict(step)

    def rename(ref: Ref) -> str:
        return known.get(ref, str(ref))

    now = renamed(params, rename)
    return {**step, "params": now, "version": operation.version} if now != renamed(params, str) else dict(step)


def _made(step: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    """Yield the short names of what a step made, with the names of now."""
    uid, params = step["uid"], step["params"]
    try:
        yield from _MADE.get(step["kind"], _nothing)(uid, params)
    except (KeyError, TypeError, AttributeError, IndexError):
        # Its parameters are not what they should be: nothing was made.
        return


def _nothing(_uid: str, _params: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    return iter(())


def _part_of(place: Mapping[str, Any]) -> str:
    return str(place["along"]).rsplit(".", 1)[0]


def _pieces_of(part: str) -> tuple[str, ...]:
    return tuple(f"{block}_{part}" for block in _BLOCKS) if part in ("front", "back") else (part,)


def _princess(uid: str, params: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    part = _part_of(params["start"])
    yield f"princess_{part}", f"{uid}.princess_{part.rsplit('_', 1)[-1]}"
    yield from ((f"{piece}_side", f"{uid}.side") for piece in _pieces_of(part))


def _style_line(uid: str, params: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    title = params.get("title", "Panel")
    name = "_".join("".join(c if c.isalnum() else " " for c in title.lower()).split()) or "panel"
    part = _part_of(params["start"])
    yield f"{name}_{part}", f"{uid}.{name}"
    yield from ((f"{piece}_{name}", f"{uid}.{name}_piece") for piece in _pieces_of(part))


def _band(uid: str, params: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    kind = params.get("kind", "neckband")
    yield f"{kind}_{params['edges'][0]['along'].split('.')[0]}", f"{uid}.{kind}"


def _facing(uid: str, params: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    along = params["edge"]["along"]
    yield f"facing_{along.replace('.', '_')}", f"{uid}.facing"
    words = along.replace(".", " ").replace("_", " ")
    yield f"{uid}.facing,_{'_'.join(words.split())}", f"{uid}.facing"


def _gore(uid: str, params: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    if params.get("kind") == "flounce":
        yield "flounce", f"{uid}.flounce"


_MADE: Mapping[str, Any] = {
    "princess": _princess,
    "style_line": _style_line,
    "add_band": _band,
    "add_facing": _facing,
    "add_gore": _gore,
}
