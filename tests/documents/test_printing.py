"""Printing the proof: every reading stands on paper whatever anybody typed, and no print outlives its bounds."""

import io
import re
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.alone import run_alone
from tests.api.bench import Bench
from tests.core.facts import Story
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.documents.pdf_printer import NotPrinted, PdfPrinter
from vallostasis.documents.proof import proof_html
from vallostasis.documents.proof_pdf import proof_pdf

PRINTED = datetime(2026, 1, 2, tzinfo=UTC)
# What could reach out of text into style sheets, page margins or mark-up.
NASTY = (
    "</style><style>table, .lines { display: none }",
    '"; } } body { display: none } @page { size: 0',
    "\\22 } .lines{display:none} /*",
    "{{ 7 * 7 }} {% raw %} <b>&amp;",
    "*/ } * { visibility: hidden } /*\n} @media all { * { display: none } }",
    "ends in a backslash \\",
)


def _told(nasty: str) -> JobFacts:
    """A job in which everything that can be typed says the same."""
    story = Story(person=nasty)
    story.fit(1, story.liner(nasty[:20]))
    fitting = story.facts().present_fitting(story.hole_rows[0].hole_id)
    assert fitting is not None
    story.read(Quantity.PROTRUSION, fitting.fitting_id, (40, 42, 88, 90))
    story.cannot_read(fitting.fitting_id, 10.5, nasty)
    story.strike(reading_id=story.facts().readings[0].reading_id)
    facts = story.facts()
    words = dict.fromkeys(("number", "name", "customer", "complaint", "serial"), nasty)
    card = facts.card
    return replace(
        facts,
        job=replace(facts.job, **words),
        card=replace(card, name=nasty, engine=nasty, measuring=replace(card.measuring, datum=nasty, hold_down=nasty)),
        strikes=tuple(replace(one, reason=nasty) for one in facts.strikes),
        setups=tuple(replace(one, load=nasty, method=nasty, hold_down=nasty) for one in facts.setups),
        gauge_versions=tuple(replace(one, name=nasty) for one in facts.gauge_versions),
    )


def _text(pdf: bytes) -> str:
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages))


@pytest.mark.parametrize("nasty", NASTY)
def test_no_text_that_anybody_typed_takes_a_table_or_a_reading_away(nasty: str) -> None:
    facts = _told(nasty)
    text = _text(proof_pdf(proof_html(facts, judge_job(facts), "µm", PRINTED)))
    for reading in facts.readings:
        assert f"{reading.typed} µm" in text
    for head in ("Limit", "as on the card", "Rule", "decision", "clock", "as typed", "page 1 of"):
        assert head in text
    # It is printed as it was typed.
    assert nasty.split()[0].strip("\n") in text


async def _here() -> bool:
    return False


async def _gone() -> bool:
    return True


def test_a_page_is_printed_in_a_child() -> None:
    facts = _told("plain")
    html = proof_html(facts, judge_job(facts), "µm", PRINTED)
    pdf = run_alone(PdfPrinter().print_pdf(html, _here))
    assert _text(pdf) == _text(proof_pdf(html))


def test_a_print_that_nobody_waits_for_or_that_takes_too_long_is_stopped() -> None:
    endless = "<p>x</p>" * 200_000

    async def both() -> None:
        with pytest.raises(NotPrinted, match="Nobody waits"):
            await PdfPrinter().print_pdf(endless, _gone)
        with pytest.raises(NotPrinted, match="took too long"):
            await PdfPrinter(most_seconds=0.5).print_pdf(endless, _here)

    run_alone(both())


def test_a_child_that_dies_is_told_of(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    # A child short of memory leaves a spoilt list of typefaces behind: here in a place of its own.
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path))

    async def run() -> None:
        with pytest.raises(NotPrinted, match="more time or memory"):
            await PdfPrinter(most_bytes=64 * 1024**2).print_pdf("<p>x</p>", _here)

    run_alone(run())


def test_what_was_not_printed_is_said_in_the_one_error_shape(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    client.app.state.printer = PdfPrinter(most_seconds=0)  # type: ignore[attr-defined]
    answer = client.get(f"/api/jobs/{bench.job_id}/proof.pdf?person_id={bench.person_id}")
    assert (answer.status_code, answer.json()["code"]) == (503, "not printed")
    assert "print it from the browser" in answer.json()["message"]
