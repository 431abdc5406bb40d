"""The chain over a job, held against its texts written out by hand and SHA-256 of the standard library (FIPS 180-4)."""

import hashlib
import json
from dataclasses import fields, replace
from datetime import UTC, datetime, timedelta, timezone
from decimal import Decimal
from typing import Any
from uuid import UUID, uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.facts import Story
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.tape.chain import Link, canonical, first_difference, links_of
from vallostasis.core.tape.fact_kinds import EVENTFUL, newest_event


def _told() -> JobFacts:
    story = Story(holes=2)
    first = story.fit(1, story.liner("L1"), 200)
    story.read(Quantity.PROTRUSION, first, (80, 82))
    second = story.fit(2, story.liner("L2"))
    story.read(Quantity.PROTRUSION, second, (90,))
    return story.facts()


def _links(facts: JobFacts) -> tuple[Link, ...]:
    return links_of(facts, {one.gauge_version_id: one for one in facts.gauge_versions})


def test_the_first_link_is_sha_256_over_the_job_written_out_by_hand() -> None:
    facts = _told()
    job, holes = facts.job, facts.holes
    text = json.dumps(
        {
            "holes": [{"bank": "", "hole_id": str(one.hole_id), "number": one.number} for one in holes],
            "job": {
                # It is not invented: what stands at its default is left out.
                "complaint": job.complaint, "customer": job.customer,
                "job_id": str(job.job_id), "name": job.name, "number": job.number,
                "opened_at": job.opened_at.isoformat(), "serial": job.serial,
            },
        },
        separators=(",", ":"), ensure_ascii=False,
    )  # fmt: skip
    assert _links(facts)[0] == Link(0, 0, hashlib.sha256(f"{'0' * 64}\n{text}".encode()).hexdigest())


def test_each_link_holds_all_before_it_and_nothing_after_it() -> None:
    facts = _told()
    whole = _links(facts)
    assert [link.entry for link in whole] == list(range(len(whole)))
    until = facts.readings[1].event
    before = replace(facts, **{
        rows: tuple(row for row in getattr(facts, rows) if row.event <= until) for rows in EVENTFUL
    })  # fmt: skip
    assert _links(before) == whole[: len(_links(before))]
    assert len(_links(before)) < len(whole)


def _other(value: Any) -> Any:
    """Another value of the same kind."""
    if isinstance(value, bool):
        return not value
    if isinstance(value, str):
        return f"{value}x"
    if isinstance(value, int | float | Decimal):
        return value + 1
    if isinstance(value, datetime):
        return value + timedelta(seconds=1)
    return uuid4() if isinstance(value, UUID) else value


@given(data=st.data())
def test_whatever_is_changed_shows_from_its_entry_on(data: st.DataObject) -> None:
    facts = _told()
    kept = [link.sha256 for link in _links(facts)]
    rows = data.draw(st.sampled_from([name for name in EVENTFUL if getattr(facts, name)]))
    at = data.draw(st.integers(0, len(getattr(facts, rows)) - 1))
    row = getattr(facts, rows)[at]
    names = [
        one.name
        for one in fields(row)
        if one.name not in ("event", "photo_here") and _other(getattr(row, one.name)) != getattr(row, one.name)
    ]
    name = data.draw(st.sampled_from(names))
    changed = replace(row, **{name: _other(getattr(row, name))})
    spoilt = replace(facts, **{rows: (*getattr(facts, rows)[:at], changed, *getattr(facts, rows)[at + 1 :])})
    entry = next(link.entry for link in _links(facts) if link.event == row.event)
    assert first_difference(kept, _links(spoilt)) == entry


@pytest.mark.parametrize("rows", ["liners", "fitting_shims"])
def test_what_has_no_event_is_chained_where_it_is_named_first(rows: str) -> None:
    facts = _told()
    kept = [link.sha256 for link in _links(facts)]
    first, *others = getattr(facts, rows)
    text = next(one.name for one in fields(first) if isinstance(getattr(first, one.name), str))
    spoilt = replace(facts, **{rows: (replace(first, **{text: "other"}), *others)})
    assert first_difference(kept, _links(spoilt)) == 1 + sorted(
        row.event for name in EVENTFUL for row in getattr(facts, name)
    ).index(facts.fittings[0].event)


def test_a_gauge_made_better_afterwards_shows() -> None:
    facts = _told()
    kept = [link.sha256 for link in _links(facts)]
    (gauge,) = facts.gauge_versions
    better = replace(facts, gauge_versions=(replace(gauge, resolution_um=Decimal("0.1")),))
    assert first_difference(kept, _links(better)) is not None


def test_what_was_taken_out_shows_and_what_came_since_does_not() -> None:
    facts = _told()
    whole = [link.sha256 for link in _links(facts)]
    without = replace(facts, readings=facts.readings[:-1])
    assert first_difference(whole, _links(without)) == len(whole) - 1
    assert first_difference(whole[:3], _links(facts)) is None
    assert first_difference([], _links(facts)) is None
    last = facts.readings[-1]
    more = replace(facts, readings=(*facts.readings, replace(last, reading_id=uuid4(), event=newest_event(facts) + 1)))
    assert first_difference(whole, _links(more)) is None


def test_the_numbers_of_the_events_do_not_matter_only_their_order() -> None:
    facts = _told()
    shifted = replace(facts, **{
        rows: tuple(replace(row, event=10 * row.event + 7) for row in getattr(facts, rows)) for rows in EVENTFUL
    })  # fmt: skip
    assert [link.sha256 for link in _links(shifted)] == [link.sha256 for link in _links(facts)]


def test_one_text_for_one_value() -> None:
    assert canonical({"b": 1, "a": "é"}) == '{"a":"é","b":1}'
    facts = _told()
    first, *others = facts.readings
    there = timezone(timedelta(hours=5))
    same = replace(first, value_um=first.value_um + Decimal("0.000"), taken_at=first.taken_at.astimezone(there))
    assert first.taken_at.tzinfo is UTC
    assert _links(replace(facts, readings=(same, *others))) == _links(facts)
