"""The demo job as people would work through it: what is found, what is cut, what is proved."""

from decimal import Decimal
from uuid import UUID, uuid4

import pytest

from vallostasis.core.causes.experiments import look_at
from vallostasis.core.counterbore.hole_plan import HolePlan, HoleRefusal, depth_window, expected_after_cut
from vallostasis.core.counterbore.shim_order import shim_needs
from vallostasis.core.hole_now import hole_now
from vallostasis.core.matching.chosen import chosen_matching
from vallostasis.core.needs import Action
from vallostasis.core.records.experiments import Matter
from vallostasis.core.records.rows import Hole, Place, Quantity
from vallostasis.core.uncertainty.decision import State
from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.demo import sawmill_hauler as sawmill
from vallostasis.devices.simulated_gauge import parse_tip
from vallostasis.services import block, fitting, readings, setups, tape, zeros
from vallostasis.services.demo_devices import standing_truth_um
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import gauges, jobs
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.new_facts import NewSetup
from vallostasis.store.rows import Conn


def states(conn: Conn, job: UUID) -> dict[int, State]:
    return {hole.hole: hole.state for hole in block.block_of_job(conn, job).judgement.holes}


def hole_row(conn: Conn, job: UUID, number: int) -> Hole:
    hole = load_job_facts(conn, job).hole_numbered(number)
    assert hole is not None
    return hole


def take(conn: Conn, job: UUID, by: UUID, text: str, **where: object) -> None:
    fields: dict[str, object] = {
        "reading_id": uuid4(), "quantity": Quantity.PROTRUSION, "hole": None, "hour": None, "liner_mark": "",
        "land": "", "text": text, "bare_unit": "0.01 mm", "confirmed": False, "read_before": "", "new_pass": False,
        "part_temp_c": None,
    }  # fmt: skip
    readings.take_reading(conn, job, readings.ReadingToTake(**{**fields, **where}), by)  # type: ignore[arg-type]


def test_states_follow_from_the_hidden_truth(demo: Conn, demo_job: UUID) -> None:
    """Truth and limits of the demo, not its readings: hole 5 truly sinks below 50 µm, hole 6 comes within U of it."""
    found = states(demo, demo_job)
    liners = {liner.mark: liner for liner in ferry.LINERS}
    for number, hole in enumerate(ferry.HOLES, start=1):
        truth = [liners[ferry.FITTED[number]].flange_um - hole.ledge_depth_um(hour) for hour in ferry.HOURS]
        if min(truth) < 40:
            assert found[number] is State.OUT
        elif min(truth) > 60 and not liners[ferry.FITTED[number]].measured_over_lip:
            assert found[number] is State.IN
        else:
            assert found[number] is State.CANNOT_TELL


def test_the_lip_is_found_out_and_the_new_thickness_settles_it(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    need = hole_now(load_job_facts(demo, demo_job), hole_row(demo, demo_job, 3)).need
    assert need.action is Action.READ_FLANGE
    assert need.liner_mark == "L2"
    assert "lip" in need.detail.text
    hole = hole_row(demo, demo_job, 3)
    refused = fitting.plan_of_hole(demo, hole.hole_id)[2]
    assert isinstance(refused, HoleRefusal)
    assert "disagree" in refused.reason
    take(demo, demo_job, wren, "8.902", quantity=Quantity.FLANGE_THICKNESS, liner_mark="L2", bare_unit="mm",
         read_before="correct")  # fmt: skip
    assert states(demo, demo_job)[3] is State.IN


def _cut_and_refit(conn: Conn, job: UUID, by: UUID) -> None:
    hole = hole_row(conn, job, 5)
    plan = fitting.plan_of_hole(conn, hole.hole_id)[2]
    assert isinstance(plan, HolePlan)
    depth = plan.cut.depth_m
    made = fitting.CutMade(uuid4(), f"{depth * 1000:.3f}", "mm", 3, "0.10 mm", "", False)
    fitting.record_cut(conn, hole.hole_id, made, by)
    assert states(conn, job)[5] is State.NOT_MEASURED
    for hour in ferry.HOURS:
        take(conn, job, by, f"{depth * 1000:.3f}", quantity=Quantity.COUNTERBORE_DEPTH, hole=5, hour=hour,
             bare_unit="mm")  # fmt: skip
    shim = fitting.ShimFitted("0.10 mm", "0.101 mm", "bevel down")
    fitting.record_fitting(conn, hole.hole_id, uuid4(), "L6", (shim,), by, made_ready=fitting.ALL_READY)


def test_after_a_cut_the_expectation_moves_from_the_stop_to_the_gauge(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    hole = hole_row(demo, demo_job, 5)
    fitting.record_cut(demo, hole.hole_id, fitting.CutMade(uuid4(), "8.898", "mm", 3, "0.10 mm", "", False), wren)
    by_stop = expected_after_cut(load_job_facts(demo, demo_job), hole)
    # Flange of L6 8.898, shim 0.100, cut to 8.898 from the deck.
    assert by_stop is not None
    assert by_stop.value_m == pytest.approx(100e-6, abs=1e-9)
    for hour in ferry.HOURS:
        take(demo, demo_job, wren, "8.904", quantity=Quantity.COUNTERBORE_DEPTH, hole=5, hour=hour, bare_unit="mm")
    by_gauge = expected_after_cut(load_job_facts(demo, demo_job), hole)
    assert by_gauge is not None
    assert by_gauge.value_m == pytest.approx(94e-6, abs=1e-9)
    assert by_gauge.expanded_m < by_stop.expanded_m / 2
    assert states(demo, demo_job)[5] is State.NOT_MEASURED


def test_window_of_ledge_depths_is_the_window_of_protrusion_turned_over(demo: Conn, demo_job: UUID) -> None:
    # Flange of L1 as measured 8.901 mm: 50 to 125 µm proud is 8.776 to 8.851 mm deep.
    least, greatest = depth_window(load_job_facts(demo, demo_job), hole_row(demo, demo_job, 1))
    assert (least, greatest) == (pytest.approx(8.776e-3, abs=1e-9), pytest.approx(8.851e-3, abs=1e-9))


def test_shims_are_counted_over_the_block(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    now = block.block_of_job(demo, demo_job)
    needs = {need.typed: need for need in shim_needs(now.facts, now.judgement)}
    assert (needs["0.10 mm"].on_shelf, needs["0.10 mm"].holes, needs["0.10 mm"].to_order) == (2, (5,), 0)
    assert needs["0.15 mm"].holes == ()
    _cut_and_refit(demo, demo_job, wren)
    now = block.block_of_job(demo, demo_job)
    fitted = {need.typed: need for need in shim_needs(now.facts, now.judgement)}
    assert (fitted["0.10 mm"].on_shelf, fitted["0.10 mm"].holes) == (1, ())


def test_cut_shim_and_new_readings_bring_a_hole_in(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    _cut_and_refit(demo, demo_job, wren)
    # Predicted and never measured stays open.
    assert states(demo, demo_job)[5] is State.NOT_MEASURED
    for hour in ferry.HOURS:
        take(demo, demo_job, wren, "10.1", hole=5, hour=hour)
    now = block.block_of_job(demo, demo_job)
    assert now.judgement.holes[4].state is State.IN
    measured = now.judgement.holes[4].rules[0]
    assert (measured.least_m, measured.greatest_m) == (75e-6, 125e-6), "on a shim its own limits hold"
    before = [f for f in now.facts.fittings if f.hole_id == hole_row(demo, demo_job, 5).hole_id]
    assert len(before) == 2, "what was read before stays on record"


def test_changing_land_gauge_or_clamp_reopens_every_hole(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, demo_job)
    setup = facts.present_setup(Quantity.PROTRUSION)
    assert setup is not None
    new = NewSetup(demo_job, Quantity.PROTRUSION, setup.gauge_id, ferry.LIP, setup.datum, setup.hold_down,
                   setup.hold_down_torque_nm, True)  # fmt: skip
    setups.change_setup(demo, new, wren)
    now = block.block_of_job(demo, demo_job)
    assert {hole.state for hole in now.judgement.holes} == {State.NOT_MEASURED}
    assert all("land changed" in hole.reason for hole in now.judgement.holes)
    back = NewSetup(demo_job, Quantity.PROTRUSION, setup.gauge_id, ferry.FLAT, setup.datum, setup.hold_down,
                    setup.hold_down_torque_nm, True)  # fmt: skip
    setups.change_setup(demo, back, wren)
    assert states(demo, demo_job)[1] is State.IN


def test_a_coarse_gauge_is_called_the_wrong_tool_for_a_small_window(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, demo_job)
    setup = facts.present_setup(Quantity.PROTRUSION)
    dial = next(gauge for gauge in gauges.list_gauges(demo) if gauge.name == "Old depth dial")
    assert setup is not None
    setups.change_setup(demo, NewSetup(demo_job, Quantity.PROTRUSION, dial.gauge_id, setup.land, setup.datum,
                          setup.hold_down, setup.hold_down_torque_nm, True), wren)  # fmt: skip
    for hour in ferry.HOURS:
        take(demo, demo_job, wren, "7.0", hole=1, hour=hour)
    # 20 µm inside the limit: proven by the sled (±6 µm), not by the dial (±29 µm).
    assert states(demo, demo_job)[1] is State.CANNOT_TELL


def test_a_position_read_twice_is_asked_about_and_both_answers_work(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    with pytest.raises(Refused, match="repeat, or does it correct") as asked:
        take(demo, demo_job, wren, "8.6", hole=1, hour=12.0)
    assert asked.value.code is RefusalCode.READ_BEFORE
    take(demo, demo_job, wren, "8.4", hole=1, hour=12.0, read_before="repeat")
    marks = block.block_of_job(demo, demo_job).judgement.holes[0].rules
    assert marks[0].value_m == pytest.approx((88e-6 + 84e-6) / 2)
    take(demo, demo_job, wren, "9.0", hole=1, hour=12.0, read_before="correct")
    assert block.block_of_job(demo, demo_job).judgement.holes[0].rules[0].value_m == pytest.approx(90e-6)
    kept = [r.typed for r in load_job_facts(demo, demo_job).readings if r.hour == 12.0][-3:]
    assert kept[1:] == ["8.4", "9.0"]


def test_striking_and_restoring_are_rows_and_undo_each_other(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, demo_job)
    newest = facts.readings[-1]
    tape.strike(demo, demo_job, newest.event, True, "slipped", wren)
    assert states(demo, demo_job)[6] is State.NOT_MEASURED
    with pytest.raises(Refused, match="struck already"):
        tape.strike(demo, demo_job, newest.event, True, "", wren)
    tape.strike(demo, demo_job, newest.event, False, "", wren)
    assert states(demo, demo_job)[6] is State.CANNOT_TELL
    assert len(load_job_facts(demo, demo_job).strikes) == len(facts.strikes) + 2


def test_a_cut_can_be_taken_back_until_something_stands_on_it(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    _cut_and_refit(demo, demo_job, wren)
    facts = load_job_facts(demo, demo_job)
    cut, refit = facts.cuts[-1], facts.fittings[-1]
    with pytest.raises(Refused, match="strike that first"):
        tape.strike(demo, demo_job, cut.event, True, "", wren)
    tape.strike(demo, demo_job, refit.event, True, "", wren)
    tape.strike(demo, demo_job, cut.event, True, "", wren)
    assert states(demo, demo_job)[5] is State.OUT, "as it stood before the cut"


def test_a_cut_that_would_miss_the_window_is_asked_about(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    hole = hole_row(demo, demo_job, 5)
    slip = fitting.CutMade(uuid4(), "8.989", "mm", 3, "0.10 mm", "", False)
    with pytest.raises(Refused, match="below the least") as asked:
        fitting.record_cut(demo, hole.hole_id, slip, wren)
    assert asked.value.suggestions[0].confirm
    with pytest.raises(Refused, match="no deeper than the ledge"):
        fitting.record_cut(demo, hole.hole_id, fitting.CutMade(uuid4(), "8.8", "mm", 1, "0.10 mm", "", True), wren)


def test_a_liner_cannot_be_in_two_holes(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    with pytest.raises(Refused, match="L1 is in hole 1"):
        fitting.record_fitting(
            demo, hole_row(demo, demo_job, 5).hole_id, uuid4(), "L1", (), wren, made_ready=fitting.ALL_READY
        )


def test_a_zero_found_moved_shifts_the_set_and_widens_what_is_shared(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, demo_job)
    fitted = facts.present_fitting(hole_row(demo, demo_job, 1).hole_id)
    assert fitted is not None
    reading_set = facts.newest_protrusion_set(fitted.fitting_id)
    assert reading_set is not None
    hole = hole_row(demo, demo_job, 1)
    before = hole_now(load_job_facts(demo, demo_job), hole)
    zeros.correct_zero(demo, demo_job, reading_set.reading_set_id, "-5 µm", "µm", "zero found at +5", wren)
    after = hole_now(load_job_facts(demo, demo_job), hole)
    assert before.mean is not None
    assert after.mean is not None
    assert after.mean.value_m == pytest.approx(before.mean.value_m - 5e-6)
    assert after.mean.expanded_m > before.mean.expanded_m
    assert before.variation is not None
    assert after.variation is not None
    assert after.variation.value_m == pytest.approx(before.variation.value_m), "a shared zero cancels in a difference"
    assert after.variation.expanded_m == pytest.approx(before.variation.expanded_m)


@pytest.mark.parametrize(("text", "likelier"), [("0.88", "8.8"), ("88", "8.8"), ("-8.6", "8.6")])
def test_slips_of_point_and_sign_are_asked_about(
    demo: Conn, demo_job: UUID, wren: UUID, text: str, likelier: str
) -> None:
    """A slip ten times off or with its sign lost stands far from its set."""
    with pytest.raises(Exception, match=r"did you mean|slip of") as asked:
        take(demo, demo_job, wren, text, hole=1, hour=1.5)
    offered = [Decimal(s.text.split()[0].lstrip("+")) for s in asked.value.suggestions]  # type: ignore[attr-defined]
    assert Decimal(likelier) in [value * factor for value in offered for factor in (1, 10, 100, Decimal("0.1"))]


def test_numbers_of_another_hole_or_gauge_are_not_mixed_into_a_set(demo: Conn, demo_job: UUID, wren: UUID) -> None:
    with pytest.raises(Refused, match="no hole 9"):
        take(demo, demo_job, wren, "8.8", hole=9, hour=6.0)
    with pytest.raises(Refused, match="clock position"):
        take(demo, demo_job, wren, "8.8", hole=1)


def _mark(conn: Conn, job: UUID, by: UUID, hour: float, unreadable: bool, reason: str) -> None:
    zeros.mark_place_unreadable(conn, job, Quantity.PROTRUSION, "hole-1", Place(hour=hour), unreadable, reason, by)


def test_a_position_that_cannot_be_read_leaves_the_hole_undecided_with_the_reason(
    demo: Conn, demo_job: UUID, wren: UUID
) -> None:
    newest = [r for r in load_job_facts(demo, demo_job).readings if r.hour == 6.0][-6]
    tape.strike(demo, demo_job, newest.event, True, "the tip slipped off", wren)
    assert states(demo, demo_job)[1] is State.NOT_MEASURED
    with pytest.raises(Refused, match="Type the reason"):
        _mark(demo, demo_job, wren, 6.0, True, " ")
    with pytest.raises(Refused, match="Nothing asks for this place"):
        _mark(demo, demo_job, wren, 5.0, True, "x")
    _mark(demo, demo_job, wren, 6.0, True, "a stud in the way")
    judged = block.block_of_job(demo, demo_job).judgement.holes[0]
    assert judged.state is State.CANNOT_TELL
    assert "6h cannot be read: a stud in the way" in judged.reason
    with pytest.raises(Refused, match="said already"):
        _mark(demo, demo_job, wren, 6.0, True, "a stud in the way")
    _mark(demo, demo_job, wren, 6.0, False, "")
    assert states(demo, demo_job)[1] is State.NOT_MEASURED
    _mark(demo, demo_job, wren, 6.0, True, "a stud in the way")
    take(demo, demo_job, wren, "8.6", hole=1, hour=6.0)
    assert states(demo, demo_job)[1] is State.IN, "one that was read after all counts as read"


def test_the_v8_has_its_own_truth_and_its_mistake_is_found(demo: Conn) -> None:
    """Hole 3 stands right but its shim was written down 2 thou too thin: parts and reading disagree."""
    job = next(job.job_id for job in jobs.list_jobs(demo) if job.name == "Sawmill Hauler")
    found = states(demo, job)
    for number in (1, 2, 4, 5):
        truth = [sawmill.BLOCK.standing_um(number, hour, True, f"S{number}", None, 0) for hour in sawmill.HOURS]
        least, greatest = (50.8, 127.0) if number not in sawmill.SHIMS else (76.2, 127.0)
        assert min(truth) > least + 8
        assert max(truth) < greatest - 8
        assert found[number] is State.IN
    assert found[3] is State.CANNOT_TELL
    need = hole_now(load_job_facts(demo, job), hole_row(demo, job, 3)).need
    assert "disagree" in need.sentence.text
    assert [term.value for term in need.detail.terms] == pytest.approx([152.4e-6, 203.2e-6])
    assert (found[6], found[7], found[8]) == (State.OUT, State.NOT_MEASURED, State.NOT_MEASURED)


def test_every_demo_job_is_marked_as_invented(demo: Conn) -> None:
    assert [(job.name, job.invented) for job in jobs.list_jobs(demo)] == [
        ("Ferry Lanthorn", True),
        ("Ferry Lanthorn, starboard", True),
        ("Sawmill Hauler", True),
        ("Pump No. 4", True),
        ("Narrow-boat Quillet", True),
        ("Winding Engine Hob", True),
        ("Narrow-boat Brindle", True),
        ("Hill Tractor Marram", True),
        ("Hill Tractor Sedge", True),
        ("Winding Engine Tamsin", True),
    ]


def test_the_simulated_gauge_knows_the_block_by_the_liner_in_it() -> None:
    v8 = parse_tip("at 8 12h protrusion S8")
    ferry_hole = parse_tip("at 5 6h protrusion L6")
    shimmed = parse_tip("at 3 12h protrusion S3 shim 152.4")
    assert v8 is not None
    assert ferry_hole is not None
    assert shimmed is not None
    assert standing_truth_um(v8) == pytest.approx(90, abs=3)
    assert standing_truth_um(ferry_hole) == pytest.approx(29, abs=3)
    # As found, the shim that is really there counts, not the one written down.
    assert standing_truth_um(shimmed) == pytest.approx(8889 + 203.2 - 8995, abs=5)


def test_the_hauler_has_its_order_taken_and_the_ferry_its_trail_of_false_leads(demo: Conn) -> None:
    """The sunk hole 6 gets the spare with the thicker flange; on the ferry zero and clamp were looked at in vain."""
    of = {job.name: job.job_id for job in jobs.list_jobs(demo)}
    chosen = chosen_matching(load_job_facts(demo, of["Sawmill Hauler"]))
    assert chosen is not None
    assert {step.liner for step in chosen.steps if step.hole == 6} >= {"S9"}
    looked = look_at(load_job_facts(demo, of["Ferry Lanthorn"]), Matter.HEIGHTS)
    assert [(one.finding is not None, one.overtaken) for one in looked.tried] == [(True, ""), (True, "")]
    assert "lip under the micrometer was not tested" in looked.hold
