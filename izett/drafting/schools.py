"""Where the sheets that several blocks share lie."""

from pathlib import Path

#: The school of the measures used: a sheet that every block drafted from the body's measures has.
MEASURES_USED = Path(__file__).parent / "measures_used.toml"
