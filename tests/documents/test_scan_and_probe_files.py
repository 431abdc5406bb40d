"""Files of a roundness instrument and of a probe: read whole or not at all, against numpy and by hand."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.alone import run_alone
from vallostasis.documents.file_reader import FileReader
from vallostasis.documents.not_read import NotRead
from vallostasis.documents.probe_file import MOST_POINTS, ProbedPoint, read_probe
from vallostasis.documents.scan_file import read_scan

NUMBER = st.floats(-1e6, 1e6, allow_nan=False)


async def _here() -> bool:
    return False


@given(
    st.lists(st.tuples(NUMBER, NUMBER, NUMBER), min_size=1, max_size=20), st.sampled_from([",", ";", "\t"]),
    st.booleans(), st.booleans(),
)  # fmt: skip
def test_every_row_is_read_whatever_parts_it_and_stands_above_it(
    rows: list[tuple[float, float, float]], delimiter: str, has_head: bool, has_comment: bool
) -> None:
    head = ["# instrument, no date"] * has_comment + [delimiter.join(("angle", "level", "radius"))] * has_head
    lines = head + [delimiter.join(repr(one) for one in row) for row in rows]
    np.testing.assert_array_equal(read_scan("\n".join(lines).encode()), np.array(rows))


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "The file is empty"),
        (b"angle,level,radius\n1,2,3\n1,2,three\n", "Line 3 of the file lacks a number"),
        (b"angle,level,radius\n1,2,3\n\n# pause\n1,2\n", "Line 5 of the file lacks a number"),
        (b"1,2\n3,4\n", "three columns or more"),
    ],
)
def test_a_scan_that_cannot_be_read_says_where(content: bytes, words: str) -> None:
    with pytest.raises(NotRead, match=words):
        read_scan(content)


def test_what_a_probe_touched_is_read_line_by_line() -> None:
    content = b"# probe\npart,x,y,z\ndeck,0,0,0.001\n\n2,10.5,-3,-40\n"
    assert read_probe(content) == (ProbedPoint(3, 0, (0.0, 0.0, 0.001)), ProbedPoint(5, 2, (10.5, -3.0, -40.0)))


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "The file is empty"),
        (b"\x00\x01", "This is no text"),
        (b"deck,0,0,0\ndeck,0,0\n", "Line 2 is not understood"),
        (b"lid,0,0,0\n", "Line 1 is not understood"),
        (b"1,0,0,inf\n", "Line 1 lacks a number"),
        (b"deck,0,0,0\n" * (MOST_POINTS + 1), "more than 20,000 points"),
    ],
)
def test_a_probing_that_cannot_be_read_says_where(content: bytes, words: str) -> None:
    with pytest.raises(NotRead, match=words):
        read_probe(content)


def test_both_are_read_in_a_child_as_they_are_here() -> None:
    scan, probe = b"0,1,2\n90,1,2.1\n", b"deck,0,0,0\n1,1,2,3\n"
    np.testing.assert_array_equal(run_alone(FileReader().scan(scan, _here)), read_scan(scan))
    assert run_alone(FileReader().probe(probe, _here)) == read_probe(probe)
    with pytest.raises(NotRead, match="Line 1"):
        run_alone(FileReader().probe(b"lid,0,0,0\n", _here))
