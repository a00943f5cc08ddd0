"""How long work tells of itself while it goes on: how far it has come, and what it has found so far."""

from typing import Protocol

from pydantic import BaseModel


class Teller(Protocol):
    """Told how many parts are done, of how many, and what has been found so far; raises where the work is not wanted."""

    def __call__(self, done: int, of: int, /) -> None:
        """Tell how far it has come."""

    def found(self, result: BaseModel) -> None:
        """Show what has been found so far, to be bettered."""
