"""Readings from a file into the demo job: row by row, all or nothing, never twice."""

import csv
import io
from dataclasses import replace
from decimal import Decimal
from uuid import UUID, uuid4

import pytest

from tests.services.files import import_readings
from vallostasis.core.records.rows import Quantity, Reading, Strike
from vallostasis.core.uncertainty.decision import State
from vallostasis.services import proof, shop, tape
from vallostasis.services.block import block_of_job
from vallostasis.services.reading_import import ImportReport, ImportWish, Take, Verdict
from vallostasis.store import gauges
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def _wish(take: Take = Take.ALL_OR_NOTHING, **changes: object) -> ImportWish:
    fields: dict[str, object] = {"import_id": uuid4(), "take": take, "quantity": Quantity.PROTRUSION,
                                 "small_unit": "µm", "size_unit": "mm", "as_written": False}  # fmt: skip
    return ImportWish(**{**fields, **changes})  # type: ignore[arg-type]


def _table(*rows: str, head: str = "hole,clock_h,repeat,reading") -> bytes:
    return "\n".join((head, *rows)).encode()


ROUND = ("1,12,1,85", "1,3,1,86", "1,6,1,84.5", "1,9,1,0.0034 in")


def _messages(report: ImportReport) -> dict[int, str]:
    return {row.number: row.message for row in report.rows if row.verdict is Verdict.BAD}


def test_good_rows_make_a_pass_of_their_own(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    before = load_job_facts(demo, demo_job)
    report = import_readings(demo, demo_job, _table(*ROUND), _wish(), wren)
    assert report.taken == 4
    facts = load_job_facts(demo, demo_job)
    new = facts.readings[len(before.readings) :]
    assert [reading.value_um for reading in new] == [85, 86, Decimal("84.5"), Decimal("86.36")]
    assert {reading.reading_set_id for reading in new} == {facts.sets[-1].reading_set_id}
    assert len(facts.sets) == len(before.sets) + 1
    assert block_of_job(demo, demo_job).judgement.holes[0].state.value == "in"


def test_one_bad_row_stops_all_unless_chosen_otherwise(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    content = _table(*ROUND, "9,12,1,85", "1,13,1,85", "1,6,1,84", "2,6,1,85 mil")
    before = load_job_facts(demo, demo_job)
    for take in (Take.ONLY_CHECK, Take.ALL_OR_NOTHING):
        report = import_readings(demo, demo_job, content, _wish(take), wren)
        assert report.taken == 0
        assert load_job_facts(demo, demo_job) == before
    bad = _messages(report)
    assert list(bad) == [6, 7, 8, 9]
    assert "There is no hole 9" in bad[6]
    assert "A clock position is above 0 and up to 12" in bad[7]
    assert "stands in row 4 already" in bad[8]
    assert "two units" in bad[9]
    assert import_readings(demo, demo_job, content, _wish(Take.LEAVE_BAD_OUT), wren).taken == 4


def test_sending_a_file_again_doubles_nothing(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    wish = _wish()
    assert import_readings(demo, demo_job, _table(*ROUND), wish, wren).taken == 4
    again = import_readings(demo, demo_job, _table(*ROUND), wish, wren)
    assert again.taken == 0
    assert {row.verdict for row in again.rows} == {Verdict.HERE_ALREADY}


def test_repeats_are_told_apart_by_their_column(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    report = import_readings(demo, demo_job, _table("1,6,1,85", "1,6,2,86", "1,6,3,85"), _wish(), wren)
    assert report.taken == 3
    twice = import_readings(demo, demo_job, _table("1,6,,85", "1,6,,86"), _wish(), wren)
    assert "number the repeats" in _messages(twice)[3]


@pytest.mark.parametrize("as_xlsx", [False, True])
def test_our_own_export_comes_back_as_it_was(demo: Conn, demo_job: UUID, wren: UUID, as_xlsx: bool) -> None:
    facts = load_job_facts(demo, demo_job)
    exported = proof.readings_as_xlsx(demo, demo_job) if as_xlsx else proof.readings_as_csv(demo, demo_job).encode()
    same = import_readings(demo, demo_job, exported, _wish(), wren)
    assert {row.verdict for row in same.rows} == {Verdict.HERE_ALREADY}
    # Without their ids they are new: taken as they were, passes, repeats, struck ones, people and times.
    rows = list(csv.DictReader(io.StringIO(proof.readings_as_csv(demo, demo_job))))
    out = io.StringIO(newline="")
    writer = csv.DictWriter(out, [name for name in rows[0] if name != "reading_id"], extrasaction="ignore")
    writer.writeheader()
    writer.writerows(rows)
    report = import_readings(demo, demo_job, out.getvalue().encode(), _wish(as_written=True), wren)
    assert _messages(report) == {}
    after = load_job_facts(demo, demo_job)
    old, new = facts.readings, after.readings[len(facts.readings) :]

    def as_taken(rows: tuple[Reading, ...], struck: dict[UUID, Strike]) -> list[tuple[object, ...]]:
        return [
            (r.hour, r.value_um, r.typed, r.typed_unit, r.taken_at, r.taken_by, r.reading_id in struck) for r in rows
        ]

    assert as_taken(new, after.struck) == as_taken(old, facts.struck)


@pytest.mark.parametrize(
    ("head", "row", "words"),
    [
        ("hole,clock,reading,by", "1,6,85,Nobody", "Nobody here is called Nobody"),
        ("hole,clock,reading,when", "1,6,85,2199-01-01", "lies in the future"),
        ("hole,clock,reading,when", "1,6,85,yesterday", "is no time such as"),
        ("hole,clock,reading,hold_down", "1,6,85,studs only", "choose that first"),
        ("hole,clock,reading,gauge", "1,6,85,Old depth dial", "choose that first"),
        ("hole,clock,reading,liner", "1,6,85,L2", "Hole 1 holds L1, the row is of L2"),
        ("hole,clock,reading,quantity", "1,6,85,weight", "is none of protrusion"),
        ("hole,clock,reading,unit", "1,6,85,points", "is none of thou"),
        ("hole,clock,reading,value_um", "1,6,85,84", "which is right?"),
        ("hole,clock,reading,repeat", "1,6,85,first", "The repeat is a number"),
        ("hole,clock,reading", "1,,85", "At which clock position?"),
        ("hole,clock,reading", "one,6,85", "The hole is a number"),
        ("hole,clock,reading,part_temp_c", "1,6,85,warm", "part temp c is a number"),
        ("liner,quantity,reading,land", "L1,flange thickness,8.9,rim", "no land called rim"),
        ("hole,clock,reading", "1,6,8.5 mm", "far from what is expected"),
    ],
)
def test_a_row_that_cannot_be_taken_says_why(
    demo: Conn, demo_job: UUID, wren: UUID, head: str, row: str, words: str
) -> None:
    report = import_readings(demo, demo_job, _table(row, head=head), _wish(), wren)
    assert words in _messages(report)[2]


def test_flange_thicknesses_at_two_lands_come_in_together(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    head = "liner,quantity,land,reading"
    rows = ("L7,flange thickness,flat land,8.901", "L7,flange thickness,lip,8.991", "L1,flange thickness,lip,8.9")
    assert import_readings(demo, demo_job, _table(*rows, head=head), _wish(), wren).taken == 3
    facts = load_job_facts(demo, demo_job)
    assert [facts.setup(s.setup_id).land for s in facts.sets[-3:]] == ["flat land", "lip", "lip"]


def test_a_slip_among_the_rows_is_asked_about_and_may_be_taken_as_written(
    demo: Conn, demo_job: UUID, wren: UUID
) -> None:
    content = _table("1,12,1,85", "1,3,1,86", "1,6,1,850")
    assert "expected here" in _messages(import_readings(demo, demo_job, content, _wish(), wren))[4]
    assert import_readings(demo, demo_job, content, _wish(as_written=True), wren).taken == 3


def test_imported_readings_may_be_undone_like_any(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    import_readings(demo, demo_job, _table(*ROUND), _wish(), wren)
    newest = load_job_facts(demo, demo_job).readings[-1]
    tape.strike(demo, demo_job, newest.event, True, "wrong engine", wren)
    assert newest.reading_id in load_job_facts(demo, demo_job).struck


def test_a_row_the_gauge_cannot_have_shown_is_bad_unless_taken_as_written(
    demo: Conn, demo_job: UUID, wren: UUID
) -> None:
    micrometer = next(gauge for gauge in gauges.list_gauges(demo) if gauge.name == "Bench micrometer")
    entry = shop.GaugeEntry(micrometer.name, micrometer.kind, "1", "1", range_from="0", range_to="8")
    shop.save_gauge(demo, micrometer.gauge_id, 1, entry)
    content = _table("L7,8.901 mm", head="liner,reading")
    report = import_readings(demo, demo_job, content, _wish(quantity=Quantity.FLANGE_THICKNESS), wren)
    assert "reads from 0.000 mm (0.0000 in) to 8.000 mm (0.3150 in)" in _messages(report)[2]
    as_written = _wish(quantity=Quantity.FLANGE_THICKNESS, as_written=True)
    assert import_readings(demo, demo_job, content, as_written, wren).taken == 1


def test_before_anything_is_taken_every_state_that_would_change_is_told(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    """Told by a user: four rows turned two proven holes into "not measured", and nobody had been told before."""
    before = block_of_job(demo, demo_job)
    proven = [hole.hole for hole in before.judgement.holes if hole.state is State.IN]
    rows = "hole,clock_h,reading,unit\n" + "".join(f"{hole},12,{v},0.01 mm\n" for hole in proven for v in ("8.6",))
    wish = ImportWish(uuid4(), Take.ONLY_CHECK, Quantity.PROTRUSION, "0.01 mm", "mm", False)
    report = import_readings(demo, demo_job, rows.encode(), wish, wren)
    told = {(one.where, one.before, one.after) for one in report.changes}
    assert {(f"hole {hole}", State.IN, State.NOT_MEASURED) for hole in proven} <= told
    # Looking changed nothing.
    assert [h.state for h in block_of_job(demo, demo_job).judgement.holes] == [h.state for h in before.judgement.holes]
    taken = import_readings(demo, demo_job, rows.encode(), replace(wish, take=Take.ALL_OR_NOTHING), wren)
    assert taken.taken == len(proven)
    after = {hole.hole: hole.state for hole in block_of_job(demo, demo_job).judgement.holes}
    assert all(after[one.hole] is one.after for one in report.changes if one.hole is not None)
