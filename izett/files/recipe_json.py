"""The recipe as open JSON: `izett-recipe`, version 1: blocks, schools, fit, cloth, overrides and steps, no measures."""

import json
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from izett.drafting.ease import FITTED, MOST_STRETCH, Cloth, Kind
from izett.drafting.method import DIRECT
from izett.errors import UnreadableFile
from izett.recipe.model import Recipe, Step

FORMAT: Literal["izett-recipe"] = "izett-recipe"


class StepDoc(BaseModel):
    """One step; an unknown kind is kept and skipped."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    uid: str = Field(min_length=1, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")
    kind: str = Field(min_length=1, max_length=64)
    params: dict[str, Any]
    on: bool = True
    version: int = 1
    why: str = Field("", max_length=2000)

    def step(self) -> Step:
        """Return the recipe's step."""
        return Step(self.uid, self.kind, self.params, self.on, self.version, self.why)


class RecipeClothDoc(BaseModel):
    """The cloth that a recipe is for; `stretch` in %, crosswise to comfort."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    kind: Kind = Kind.WOVEN
    stretch: float = Field(0.0, ge=0, le=MOST_STRETCH)


class RecipeDoc(BaseModel):
    """An `izett-recipe` document."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    format: Literal["izett-recipe"] = FORMAT
    version: Literal[1] = 1
    block: str = "bodice"
    school: str = DIRECT
    overrides: dict[str, float] = {}
    steps: list[StepDoc] = []
    also: list[str] = []
    schools: dict[str, str] = {}
    fit: str = FITTED
    cloth: RecipeClothDoc = RecipeClothDoc()
    house: dict[str, float] = {}
    why: dict[str, str] = {}

    def recipe(self, measures: dict[str, float]) -> Recipe:
        """Return the recipe for a body's measures (cm)."""
        return Recipe(
            self.block,
            measures,
            self.school,
            self.overrides,
            tuple(step.step() for step in self.steps),
            tuple(self.also),
            self.schools,
            self.fit,
            Cloth(self.cloth.kind.value, self.cloth.stretch),
            self.house,
            self.why,
        )


def read_recipe(text: str) -> RecipeDoc:
    """Read an `izett-recipe` document.

    Raises:
        UnreadableFile: it is damaged or foreign; the message says where.
    """
    try:
        data: Any = json.loads(text)
        return RecipeDoc.model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        place = " → ".join(str(part) for part in first["loc"]) or "its first line"
        raise UnreadableFile(
            f"The recipe is damaged or foreign at {place}: {first['msg'].lower()}.",
            mend="Take an undamaged copy.",
        ) from error
    except ValueError as error:
        raise UnreadableFile(f"The recipe is not valid JSON: {error}.", mend="Check the file.") from error
