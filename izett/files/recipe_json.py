"""The recipe as open JSON: `izett-recipe`, version 1: blocks, schools, fit, cloth, overrides and steps, no measures."""

import json
from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator, model_validator

from izett.drafting.ease import FITTED, MOST_STRETCH, Cloth, Kind
from izett.drafting.method import DIRECT
from izett.draping.panel import Given
from izett.errors import MissingMeasure, UnreadableFile
from izett.files.older_names import named_anew
from izett.files.reading import nesting, read_json, wrong_in
from izett.measuring.measure import measure
from izett.pattern.facts import Half
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section

FORMAT: Literal["izett-recipe"] = "izett-recipe"


#: Limits that a person never meets; beyond them a recipe is refused, since it could not be shown, printed or kept.
MOST_STEPS, MOST_BLOCKS = 300, 20
MOST_SET = 500
LONGEST_REASON = 2000
#: Of a step's parameters: lists within each other, and characters as plain text.
MOST_NESTED_PARAMS, LONGEST_PARAMS = 8, 20_000

Symbol = Annotated[str, Field(max_length=80)]
Values = Annotated[dict[Symbol, float], Field(max_length=MOST_SET)]


class StepDoc(BaseModel):
    """One step; an unknown kind is kept and skipped."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    uid: str = Field(min_length=1, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")
    kind: str = Field(min_length=1, max_length=64)
    params: dict[str, Any]
    on: bool = True
    version: int = Field(1, ge=1)
    why: str = Field("", max_length=LONGEST_REASON)
    section: Section | None = None
    half: Half = Half.BOTH

    @field_validator("params")
    @classmethod
    def _plain(cls, params: dict[str, Any]) -> dict[str, Any]:
        if nesting(params) > MOST_NESTED_PARAMS:
            raise ValueError(f"a step has at most {MOST_NESTED_PARAMS} lists within each other")
        try:
            long = len(json.dumps(params, allow_nan=False))
        except ValueError as error:
            raise ValueError("a parameter is not a number") from error
        if long > LONGEST_PARAMS:
            raise ValueError(f"the parameters of a step are at most {LONGEST_PARAMS} characters long")
        return params

    def step(self) -> Step:
        """Return the recipe's step."""
        return Step(self.uid, self.kind, self.params, self.on, self.version, self.why, self.section, self.half)


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
    #: Empty where the garment is made of given pieces alone.
    block: Symbol = "bodice"
    school: Symbol = DIRECT
    overrides: Values = {}
    steps: list[StepDoc] = Field([], max_length=MOST_STEPS)
    also: list[Symbol] = Field([], max_length=MOST_BLOCKS)
    schools: dict[Symbol, Symbol] = Field({}, max_length=MOST_SET)
    fit: Symbol = FITTED
    cloth: RecipeClothDoc = RecipeClothDoc()
    house: Values = {}
    why: dict[Symbol, Annotated[str, Field(max_length=LONGEST_REASON)]] = Field({}, max_length=2 * MOST_SET)
    apart: list[Symbol] = Field([], max_length=MOST_SET)
    #: By which scheme steps name what earlier steps made: 1 took short names where they were free.
    names: Literal[1, 2] = 1
    #: Pieces from outside: draped, wrapped, traced or read from a file.
    given: Given = Given()

    @model_validator(mode="after")
    def _named_anew(self) -> Self:
        if self.names == 1:
            self.steps = [StepDoc(**data) for data in named_anew([step.model_dump() for step in self.steps])]
            self.names = 2
        return self

    def recipe(self, measures: Mapping[str, float], sides: Mapping[str, tuple[float, float]] | None = None) -> Recipe:
        """Return the recipe for a body's measures (cm).

        Args:
            measures: one length a measure.
            sides: left and right of those that were taken apart.

        Raises:
            MissingMeasure: the halves are to be drafted apart by a measure that was not taken left and right.
        """
        known = sides or {}
        for symbol in self.apart:
            if symbol not in known:
                raise MissingMeasure(
                    f"{measure(symbol).name} was not taken left and right.",
                    fix="Take both sides on the measure sheet, or draft both halves alike.",
                    where=(symbol,),
                )
        return Recipe(
            self.block,
            dict(measures),
            self.school,
            self.overrides,
            tuple(step.step() for step in self.steps),
            tuple(self.also),
            self.schools,
            self.fit,
            Cloth(self.cloth.kind.value, self.cloth.stretch),
            self.house,
            self.why,
            {symbol: known[symbol] for symbol in self.apart},
            self.given,
        )


def read_recipe(text: str) -> RecipeDoc:
    """Read an `izett-recipe` document.

    Raises:
        UnreadableFile: it is damaged or foreign; the message says where.
    """
    try:
        data = read_json(text)
        if isinstance(data, dict) and data.get("format") == FORMAT and data.get("version", 1) != 1:
            raise UnreadableFile(
                f"The recipe has version {data['version']!r}; this program reads version 1.",
                fix="Use a newer version of the program.",
            )
        return RecipeDoc.model_validate(data)
    except ValidationError as error:
        place, words, _ = wrong_in(error)
        raise UnreadableFile(
            f"The recipe is damaged or foreign at {place or 'its first line'}: {words}.",
            fix="Take an undamaged copy.",
        ) from error


def write_recipe(document: RecipeDoc) -> str:
    """Return an `izett-recipe` document as text."""
    return document.model_dump_json(indent=1) + "\n"
