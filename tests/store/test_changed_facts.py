"""Reading a job again reads what is new of it: the same as reading it whole."""

from uuid import UUID

import pytest

from vallostasis.core.tape.fact_kinds import FACT_KINDS
from vallostasis.store.fact_rows import list_all_facts, list_changed_facts
from vallostasis.store.job_facts import READ_OTHERWISE
from vallostasis.store.rows import Conn

ALIKE = [kind.rows for kind in FACT_KINDS if kind.rows not in READ_OTHERWISE]


@pytest.mark.parametrize(
    "known",
    [
        pytest.param(slice(None), id="nothing is new"),
        pytest.param(slice(0, -1), id="the last is new"),
        pytest.param(slice(0, 1), id="all but the first are new"),
        pytest.param(slice(0, 0), id="nothing was there"),
        # Two wrote at once: the earlier number was committed after the later one had been read.
        pytest.param(slice(1, None), id="an earlier one came late"),
        pytest.param(slice(1, -1), id="an earlier one came late, and one more"),
    ],
)
def test_what_is_read_again_is_what_is_kept(demo: Conn, demo_job: UUID, known: slice) -> None:
    whole = list_all_facts(demo, ALIKE, demo_job)
    assert len(whole["readings"]) > 10
    earlier = {rows: kept[known] for rows, kept in whole.items()}
    assert list_changed_facts(demo, ALIKE, demo_job, earlier) == whole


def test_only_what_is_new_is_read(demo: Conn, demo_job: UUID) -> None:
    """A row that was known is not read a second time: it stays the very same."""
    whole = list_all_facts(demo, ALIKE, demo_job)
    earlier = {rows: kept[:-1] for rows, kept in whole.items()}
    again = list_changed_facts(demo, ALIKE, demo_job, earlier)
    assert all(one is before for one, before in zip(again["readings"], earlier["readings"], strict=False))
