"""What can be drafted, done and checked, by key: the evaluator receives it, the catalogue fills it."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from izett.checking.check import Check
from izett.drafting.ease import FITTED, KNIT, WOVEN
from izett.drafting.method import Method, sheet_for
from izett.errors import DraftRefused, UnknownName, ValueOutOfRange
from izett.rules.sheet import Allowance, Found, Rule
from izett.styling.operation import Operation


@dataclass(frozen=True, slots=True)
class Catalogue:
    """What can be drafted, done and checked, by key."""

    methods: Mapping[str, Method]
    operations: Mapping[str, Operation]
    checks: Mapping[str, Check]

    def method(self, key: str) -> Method:
        """Return a drafting method.

        Raises:
            UnknownName: there is none of that name.
        """
        if key not in self.methods:
            raise UnknownName(
                f"There is no block “{key}”.",
                fix=f"Available: {', '.join(self.methods)}.",
                where=(key,),
            )
        return self.methods[key]

    def in_order(self, blocks: Sequence[str]) -> tuple[Method, ...]:
        """Return the methods of blocks in the order of drafting, with the usual base of one that has none.

        Raises:
            UnknownName: there is no such block.
            DraftRefused: two of them would clothe the same part of the body.
        """
        wanted = {key: self.method(key) for key in blocks}
        for method in tuple(wanted.values()):
            if method.stands_on and not any(base in wanted for base in method.stands_on):
                base = self.method(method.stands_on[0])
                wanted[base.key] = base
        for part in dict.fromkeys(part for method in wanted.values() for part in method.clothes):
            clothing = [method for method in wanted.values() if part in method.clothes]
            if len(clothing) > 1:
                raise DraftRefused(
                    f"{' and '.join(method.title for method in clothing)} would both clothe the body {part} the waist.",
                    fix="Keep one of them, and open another ticket for the other.",
                    where=tuple(method.key for method in clothing),
                )
        found: list[Method] = []
        while len(found) < len(wanted):
            placed = {method.key for method in found}
            waiting = [m for m in wanted.values() if m.key not in placed]
            found.append(next(m for m in waiting if not {*m.stands_on, *m.joins} & (wanted.keys() - placed)))
        return tuple(found)

    def checked(self, symbol: str, value: float) -> None:
        """Let pass a value that a rule or allowance of some block can be set to; a symbol that no block has passes too.

        Raises:
            ValueOutOfRange: none can.
        """
        refusal: ValueOutOfRange | None = None
        for entry in self.entries(symbol):
            try:
                entry.checked(value)
                return
            except ValueOutOfRange as error:
                refusal = refusal or error
        if refusal is not None:
            raise refusal

    def entries(self, symbol: str) -> Iterator[Allowance | Rule | Found]:
        """Yield what blocks have by that name, in any cloth and school: an allowance, a rule or a found value."""
        for method in self.methods.values():
            for cloth in (WOVEN, KNIT):
                if (entry := sheet_for((method,), (), FITTED, cloth).entry(symbol)) is not None:
                    yield entry
