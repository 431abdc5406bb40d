"""Proof, drawing and CSV as files: parsed again by general tools."""

import csv
import io
import re
import socket
from dataclasses import replace
from datetime import UTC, datetime
from math import hypot
from xml.etree import ElementTree

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import Story
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.uncertainty.decision import State
from vallostasis.documents.cells import safe, unmarked
from vallostasis.documents.proof import proof_html
from vallostasis.documents.proof_pdf import proof_pdf
from vallostasis.documents.readings_csv import readings_csv, readings_xlsx
from vallostasis.documents.track_drawing import (
    CENTRE,
    GREATEST_RADIUS,
    INNERMOST,
    LEAST_RADIUS,
    OUTERMOST,
    TrackMark,
    track_radius,
    track_svg,
)

SVG = "{http://www.w3.org/2000/svg}"
PRINTED = datetime(2026, 1, 2, tzinfo=UTC)


def _told() -> JobFacts:
    story = Story()
    fitting = story.fit(1, story.liner("L1"))
    ids = story.read(Quantity.PROTRUSION, fitting, (40, 42, 88, 90))
    story.strike(reading_id=ids[0])
    story.read(Quantity.COUNTERBORE_DEPTH, story.hole_rows[0].hole_id, (8810, 8810, 8810, 8810))
    return story.facts()


@given(value=st.floats(-1e-3, 1e-3))
def test_the_track_grows_with_the_value_and_says_what_lies_beyond(value: float) -> None:
    radius, held = track_radius(value, 50e-6, 125e-6)
    higher, _ = track_radius(value + 1e-6, 50e-6, 125e-6)
    assert radius <= higher
    assert held == (radius in (INNERMOST, OUTERMOST))


def test_limits_stand_on_their_circles() -> None:
    assert track_radius(50e-6, 50e-6, 125e-6)[0] == pytest.approx(LEAST_RADIUS)
    assert track_radius(125e-6, 50e-6, 125e-6)[0] == pytest.approx(GREATEST_RADIUS)


@pytest.mark.parametrize(("hour", "x", "y"), [(12, 0, -1), (3, 1, 0), (6, 0, 1), (9, -1, 0)])
def test_marks_stand_at_their_clock_position(hour: float, x: int, y: int) -> None:
    root = ElementTree.fromstring(track_svg("5", (TrackMark(hour, 80e-6, State.IN),), 50e-6, 125e-6))
    mark = root.findall(f"{SVG}circle")[-1]
    dx, dy = float(mark.attrib["cx"]) - CENTRE, float(mark.attrib["cy"]) - CENTRE
    assert (round(dx / hypot(dx, dy)), round(dy / hypot(dx, dy))) == (x, y)


@pytest.mark.parametrize(
    ("state", "shape"), [(State.IN, "circle"), (State.CANNOT_TELL, "circle"), (State.OUT, "polygon")]
)
def test_states_differ_by_shape(state: State, shape: str) -> None:
    root = ElementTree.fromstring(track_svg("5", (TrackMark(12, 80e-6, state),), 50e-6, 125e-6))
    drawn = [element for element in root.iter() if element.find(f"{SVG}title") is not None]
    assert [element.tag for element in drawn] == [f"{SVG}{shape}"]
    if state is State.CANNOT_TELL:
        assert drawn[0].attrib["fill"] == "#fff"


@pytest.mark.parametrize(("least", "greatest", "circles"), [(50e-6, None, 1), (None, 125e-6, 1), (None, None, 0)])
def test_a_track_with_a_limit_left_open_still_shows_its_readings(
    least: float | None, greatest: float | None, circles: int
) -> None:
    root = ElementTree.fromstring(track_svg("5", (TrackMark(12, 80e-6, State.OUT),), least, greatest))
    assert len(root.findall(f"{SVG}circle")) == circles
    assert len(root.findall(f"{SVG}polygon")) == 1


@pytest.mark.parametrize("unit", ["µm", "thou"])
def test_proof_says_state_reason_and_what_is_struck(unit: str) -> None:
    facts = _told()
    html = proof_html(facts, judge_job(facts), unit, PRINTED)  # type: ignore[arg-type]
    text = re.sub(r"\s+", " ", re.sub(r"<[^>]*>", " ", html))
    assert "Hole 1: out" in text
    assert "below least at 3h" in text
    assert "Hole 2: not measured" in text
    assert "struck" in text
    assert f"Lengths in {unit}" in text
    assert "certifies nothing beyond what was measured" in text


def test_a_proof_reaches_for_nothing_outside_itself(monkeypatch: pytest.MonkeyPatch) -> None:
    facts = _told()
    html = proof_html(facts, judge_job(facts), "µm", PRINTED)
    assert proof_pdf(html).startswith(b"%PDF-")
    asked: list[str] = []
    outside = html.replace("</body>", '<img src="http://127.0.0.1:9/x.png"></body>')
    monkeypatch.setattr(socket, "create_connection", lambda address, *_, **__: asked.append(address))
    assert proof_pdf(outside).startswith(b"%PDF-")
    assert asked == []


def test_readings_come_back_from_csv_exactly() -> None:
    facts = _told()
    rows = list(csv.DictReader(io.StringIO(readings_csv(facts))))
    assert [row["value_um"] for row in rows] == [f"{r.value_um:f}" for r in facts.readings]
    assert [row["struck"] for row in rows].count("struck") == 1
    assert {row["set"] for row in rows} == {"1", "2"}


@given(text=st.text(max_size=40))
def test_no_text_becomes_a_formula_in_a_spreadsheet(text: str) -> None:
    kept = safe(text)
    assert kept[:1] not in ("=", "+", "-", "@", "\t", "\r", "\n")
    # openpyxl raises for what a workbook cannot hold.
    openpyxl.Workbook().worksheets[0].append([kept])


@given(text=st.text(st.characters(exclude_categories=["Cs", "Cc", "Cn"]), max_size=40).map(str.strip))
def test_text_comes_back_from_a_table_as_it_was(text: str) -> None:
    assert unmarked(safe(text)) == text


def test_whatever_was_typed_stands_in_the_workbook_as_text() -> None:
    facts = _told()
    typed = ("=1+1", "+0.09", "-3", "@x", "\t=1", "\n=1", "bell\x07")
    readings = tuple(replace(one, typed=typed[at % 7]) for at, one in enumerate(facts.readings))
    sheet = openpyxl.load_workbook(io.BytesIO(readings_xlsx(replace(facts, readings=readings)))).worksheets[0]
    column = [cell.value for cell in sheet[1]].index("typed")
    cells = [row[column] for row in sheet.iter_rows(min_row=2)]
    assert {cell.data_type for cell in cells} == {"s"}
    assert all(cell.value.startswith("'") or cell.value == "bell\ufffd" for cell in cells)


@given(name=st.text(st.characters(exclude_categories=["Cs", "Cc"]), min_size=1, max_size=30))
def test_any_job_name_stands_in_the_proof_as_it_is(name: str) -> None:
    facts = _told()
    named = replace(facts, job=replace(facts.job, name=name))
    html = proof_html(named, judge_job(named), "µm", PRINTED)
    assert html.count("<script") == 0
    assert html.count("</body>") == 1
