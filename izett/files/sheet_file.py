"""Reading a measuring sheet from whatever open file it comes in: JSON, a scan, or CSV."""

from izett.errors import UnreadableFile
from izett.files import measures_json, scan_json
from izett.files.measures_csv import SheetRead, read_csv
from izett.units import Unit

#: Bytes. A sheet has some sixty rows; a larger file is something else.
LARGEST_FILE = 1_000_000


def read_sheet_file(data: bytes, *, unit: Unit | None = None) -> SheetRead:
    """Read a sheet.

    Args:
        data: the file's content.
        unit: what numbers without a unit are in, where the file does not say so.

    Raises:
        UnreadableFile: it is too large, not text, damaged or foreign.
        UnstatedUnit: neither the file nor `unit` says what its numbers are in.
        UnknownName, UnreadableMeasure: a reading in it is not one.
    """
    if len(data) > LARGEST_FILE:
        raise UnreadableFile(
            f"The file has {len(data) / 1e6:.1f} MB; a sheet of measures is far smaller.", fix="Choose another."
        )
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise UnreadableFile("The file is not text.", fix="Choose a CSV or JSON file, saved as UTF-8.") from error
    if not text.lstrip().startswith(("{", "[")):
        return read_csv(text, unit=unit)
    if f'"{scan_json.FORMAT}"' in text:
        return scan_json.read_scan(text)
    return SheetRead(measures_json.read_measures(text, unit=unit))
