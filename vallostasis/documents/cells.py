"""Text in a cell of a table: nothing in it is run by a spreadsheet, nothing in it breaks a workbook."""

import re

# How text begins that a spreadsheet takes for a formula, and the mark itself, so that it can be taken away again.
_BEGINS = "=+-@\t\r\n'"
_MARKED = re.compile(r"'[=+\-@\t\r\n']")
# What XML 1.0 cannot hold.
_NOT_KEPT = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ud800-\udfff\ufffe\uffff]")


def safe(text: str) -> str:
    """Mark text that a spreadsheet would take for a formula; a character that no workbook holds becomes �."""
    kept = _NOT_KEPT.sub("\ufffd", text)
    return f"'{kept}" if kept[:1] and kept[:1] in _BEGINS else kept


def unmarked(text: str) -> str:
    """Return text as it was before it was marked."""
    stripped = text.strip()
    return stripped[1:] if _MARKED.match(stripped) else stripped
