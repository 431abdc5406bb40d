"""Jobs from files held to what may be typed: house rules, each tried on a job told in memory."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from typing import Any
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import WHEN, Story
from vallostasis.core.brought_in.rules import (
    Contradicts,
    refuse_photo_names,
    refuse_what_contradicts_itself,
    refuse_what_nobody_typed,
)
from vallostasis.core.brought_in.typed_again import DoesNotFollow, typed_again
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Strike, ZeroedOn
from vallostasis.core.records.temperatures import Temperature

NOW = WHEN + timedelta(days=2)


def _told() -> JobFacts:
    story = Story(holes=2)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    return story.facts()


def _first(rows: str, **changes: Any) -> Callable[[JobFacts], JobFacts]:
    """The job with something else in the first row of a kind."""

    def spoil(facts: JobFacts) -> JobFacts:
        first, *others = getattr(facts, rows)
        return replace(facts, **{rows: (replace(first, **changes), *others)})

    return spoil


def test_a_job_as_it_is_recorded_keeps_to_the_rules() -> None:
    facts = _told()
    refuse_what_nobody_typed(facts)
    refuse_what_contradicts_itself(facts, NOW)
    assert list(typed_again(facts)) == []


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (_first("readings", value_um=Decimal("NaN")), "no number that can be measured"),
        (_first("readings", value_um=Decimal(10) ** 10), "no number that can be measured"),
        (_first("readings", value_um=Decimal(20_000_000)), "lies between -1e\\+07 and 1e\\+07"),
        (_first("readings", hour=12.5), "lies between 0 and 12"),
        (_first("sets", part_temp_c=Decimal(-100)), "lies between -60 and 300"),
        (_first("readings", typed="8\x00"), "a character that cannot be kept"),
        (_first("readings", typed="8\x1b[31m"), "a character that cannot be kept"),
        (_first("readings", typed="x" * 3000), "longer than any text"),
        (_first("gauge_versions", resolution_um=Decimal(0)), "must be above 0"),
        (_first("gauge_versions", repeatability_um=Decimal(-1)), "must not be below 0"),
    ],
)
def test_what_nobody_can_have_typed_is_refused(spoil: Callable[[JobFacts], JobFacts], words: str) -> None:
    with pytest.raises(Contradicts, match=words):
        refuse_what_nobody_typed(spoil(_told()))


def _event_twice(facts: JobFacts) -> JobFacts:
    return _first("readings", event=facts.readings[1].event)(facts)


def _strikes_a_later_reading(facts: JobFacts) -> JobFacts:
    return _strikes_what_comes_later(_first("readings", event=900)(facts))


def _strikes_what_comes_later(facts: JobFacts) -> JobFacts:
    strike = Strike(None, None, None, True, "", WHEN, "Wren", 500, of_event=900)
    return replace(facts, strikes=(strike,))


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        # Rows of another job: what names them would be written into that job.
        (_first("readings", reading_set_id=uuid4()), "readings name a reading set that is not in the file"),
        (_first("sets", fitting_id=uuid4()), "sets name a fitting that is not in the file"),
        (_first("sets", after_cut_id=uuid4()), "sets name a cut that is not in the file"),
        (_first("sets", gauge_version_id=uuid4()), "sets name a gauge version that is not in the file"),
        (_first("fittings", hole_id=uuid4()), "fittings name a hole that is not in the file"),
        (_first("fittings", liner_id=uuid4()), "fittings name a liner that is not in the file"),
        (_event_twice, "Two rows are both event"),
        (_first("readings", event=0), "counted from 1"),
        (_strikes_a_later_reading, "rest on event 900, which is no earlier one"),
        (_strikes_what_comes_later, "rest on event 900, which is no earlier one"),
        (_first("readings", taken_at=NOW + timedelta(days=3)), "no time at which it can have been recorded"),
        (_first("readings", taken_at=datetime(1890, 1, 1, tzinfo=UTC)), "no time at which it can have been recorded"),
        (_first("readings", taken_at=datetime(2026, 1, 1)), "in which time zone"),
        (_first("holes", number=2), "each with a number of its own"),
        (_first("gauge_versions", version=0), "counted from 1, each once"),
    ],
)
def test_what_contradicts_itself_is_refused(spoil: Callable[[JobFacts], JobFacts], words: str) -> None:
    with pytest.raises(Contradicts, match=words):
        refuse_what_contradicts_itself(spoil(_told()), NOW)


def test_photos_are_named_by_their_digests() -> None:
    refuse_photo_names(("", "0" * 64))
    for name in ("0" * 63, "../../etc/passwd", "G" * 64):
        with pytest.raises(Contradicts, match="named by no digest"):
            refuse_photo_names((name,))


@given(typed=st.decimals(-500, 500, places=1))
def test_a_value_follows_from_its_text(typed: Decimal) -> None:
    facts = _first("readings", typed=f"{typed}", typed_unit="µm", value_um=typed)(_told())
    assert list(typed_again(facts)) == []
    for other in {typed + Decimal("0.1"), -typed} - {typed}:
        with pytest.raises(DoesNotFollow, match="the text means"):
            list(typed_again(_first("readings", value_um=other)(facts)))


@pytest.mark.parametrize(
    ("typed", "unit", "value_um", "explained"),
    [
        # A bare number taken in thou, where the file says µm: 3.5 thou are 88.9 µm (1 in = 25.4 mm, exactly).
        ("3.5", "µm", "88.9", "taken in thou"),
        # Mil is used for two units: whoever typed it was asked, the answer stands.
        ("3.5 mil", "mm", "88.9", "two things"),
    ],
)
def test_what_an_older_reading_explains_stands_and_is_marked(
    typed: str, unit: str, value_um: str, explained: str
) -> None:
    facts = _first("readings", typed=typed, typed_unit=unit, value_um=Decimal(value_um))(_told())
    (differs,) = typed_again(facts)
    assert explained in differs.explained_by
    assert differs.reading.value_um == Decimal(value_um)


def test_a_whole_size_typed_without_its_unit_follows_from_its_text() -> None:
    """100.012 on a ring of 100 mm reads 12 µm over it; of the other sign nothing gives it."""
    facts = _first("readings", typed="100.012", typed_unit="mm", value_um=Decimal(12))(_told())
    on_a_ring = tuple(replace(one, zeroed_on=ZeroedOn.MASTER, zero_um=Decimal(100_000)) for one in facts.setups)
    sized = replace(facts, setups=on_a_ring, readings=facts.readings[:1])
    assert list(typed_again(sized)) == []
    with pytest.raises(DoesNotFollow, match="the text means"):
        list(typed_again(_first("readings", value_um=Decimal(-12))(sized)))


def test_a_liner_out_of_nitrogen_is_as_cold_as_that() -> None:
    """Nitrogen boils at -195.8 °C at one atmosphere (from memory); nothing is colder than -273.15 °C."""
    for celsius, is_one in ((Decimal("-195.8"), True), (Decimal(-274), False)):
        facts = _first("temperatures", celsius=celsius)(replace(_told(), temperatures=(_cold(),)))
        if is_one:
            refuse_what_nobody_typed(facts)
        else:
            with pytest.raises(Contradicts, match="celsius"):
                refuse_what_nobody_typed(facts)


def _cold() -> Temperature:
    return Temperature(uuid4(), "part", "liner-L1", Decimal(0), "0", WHEN, "Wren", 700)


def test_a_unit_that_is_none_is_refused() -> None:
    with pytest.raises(DoesNotFollow, match="none of ours"):
        list(typed_again(_first("readings", typed_unit="furlong")(_told())))
