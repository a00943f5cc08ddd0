"""Long work on the wire."""

from typing import Literal

from pydantic import BaseModel, ConfigDict

from studio.cutting_schemas import LaidOut
from studio.sheet_schemas import AdviceOut
from studio.trace_schemas import TracedOut


class WorkProblemOut(BaseModel):
    """Why work came to nothing, and what to do about it."""

    code: str
    message: str
    fix: str


class WorkOut(BaseModel):
    """Work that takes long: how far it has come, and what came of it, or has so far; `done` of `of` parts, 0 while nobody knows."""

    model_config = ConfigDict(from_attributes=True)

    uid: str
    kind: str
    state: Literal["waiting", "running", "done", "failed", "stopped"]
    done: int
    of: int
    result: AdviceOut | TracedOut | LaidOut | None = None
    problem: WorkProblemOut | None = None
