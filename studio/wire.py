"""What comes over the wire before anything is made of it: JSON without surprises, numbers that a database can hold."""

import re
from datetime import date, datetime, timedelta, timezone
from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Header, Path, Query
from ninja.parser import Parser
from pydantic import AfterValidator, Field

from izett.files.reading import read_json

#: No row is numbered higher, no job counts further.
HIGHEST = 2**31 - 1
RowId = Annotated[int, Field(ge=1, le=HIGHEST)]
RowInQuery = Annotated[int, Query(ge=1, le=HIGHEST)]
RowInPath = Annotated[int, Path(ge=1, le=HIGHEST)]
#: The version that a change was made to, as a page sends it back.
IfMatch = Annotated[str | None, Header(alias="If-Match")]

#: Years in which somebody is measured, or a garment due.
FIRST_YEAR, LAST_YEAR = 1900, 2199


def _in_use(day: date) -> date:
    if not FIRST_YEAR <= day.year <= LAST_YEAR:
        raise ValueError(f"the year must be from {FIRST_YEAR} to {LAST_YEAR}")
    return day


def _moment(at: datetime) -> datetime:
    _in_use(at)
    return at if at.tzinfo else at.replace(tzinfo=timezone(timedelta(0)))


Day = Annotated[date, AfterValidator(_in_use)]
Moment = Annotated[datetime, AfterValidator(_moment)]

#: Where a text may hold a control character or half a character: as an escape, or as it is.
_SUSPECT = re.compile(rb"\\u00[0-9]|\\u[dD][89a-fA-F]|\x7f|\xc2[\x80-\x9f]")
#: Control characters but for tab and the ends of lines, and halves of characters.
_STRIPPED = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff]")


def plain_json(body: bytes) -> Any:
    """Return what a JSON text says, without control characters and halves of characters in its texts.

    Raises:
        UnreadableFile: it is no JSON, has a number without an end, or lists within lists without end.
    """
    data = read_json(body)
    return _stripped(data) if _SUSPECT.search(body) else data


def _stripped(data: Any) -> Any:
    if isinstance(data, str):
        return _STRIPPED.sub("", data)
    if isinstance(data, list):
        return [_stripped(one) for one in data]
    if isinstance(data, dict):
        return {_stripped(key): _stripped(value) for key, value in data.items()}
    return data


class PlainParser(Parser):
    """Reads the bodies of requests."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Return what the body of a request says."""
        return plain_json(request.body)
