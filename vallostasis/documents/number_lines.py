"""Lines of numbers in a text file of an instrument: how its columns are parted, what is a number."""

import csv

from vallostasis.documents.not_read import NotRead


def lines_of(content: bytes) -> list[str]:
    """Lines of a text file; a file that is no text is refused."""
    if b"\x00" in content[:10_000]:
        raise NotRead("This is no text: export it as CSV.")
    return content.decode("utf-8-sig", "replace").splitlines()


def delimiter_of(line: str) -> str:
    """What parts the columns of a line: what stands in it most often, a space where nothing else does."""
    return max((";", "\t", ","), key=line.count) if any(one in line for one in ";\t,") else " "


def cells_of(line: str, delimiter: str) -> tuple[str, ...]:
    """Cells of one line."""
    if delimiter == " ":
        return tuple(line.split())
    return tuple(cell.strip() for cell in next(csv.reader([line], delimiter=delimiter), []))


def is_number(text: str) -> bool:
    """Whether a cell holds a number."""
    try:
        float(text)
    except ValueError:
        return False
    return True
