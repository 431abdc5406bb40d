"""Playing the runs of an invented job into the store, each pass at the time at which it was ended."""

from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from vallostasis.core.records.cut_runs import CHECKS, RunMarkKind
from vallostasis.demo.ferry_starboard import RunPlay
from vallostasis.services import cut_runs, cutters, fitting, shelf
from vallostasis.services.cutters import CutterTyped
from vallostasis.services.shelf import LotTyped
from vallostasis.store import jobs
from vallostasis.store.job_facts import read_job_facts
from vallostasis.store.rows import Conn

CUTTER = CutterTyped(
    name="portable counterbore cutter",
    graduation="0.020",
    stop_accuracy="0.025",
    bit="carbide, 0.4 mm corner",
    bit_projection="9 mm",
    oil="four drops of clean oil before each hole",
    collars="two, the lower one locked by a screw",
    stop_set="feeler between the collars, as thick as the cut",
    torque_nm=40.0,
    bore_least="110 mm",
    bore_greatest="150 mm",
    note="the handle wants 300 mm all round",
)


def load_cutter(conn: Conn, people: dict[str, UUID]) -> None:
    """Write the card of the shop's one cutter, and that it was sharpened."""
    cutters.save_cutter(conn, CUTTER, 0, people["Wren"])
    known = next(iter(cutters.list_known(conn)))
    today = datetime.now(UTC).date()
    cutters.serve_cutter(conn, known.card.cutter_id, "sharpened", "new edge, corner stoned", today - timedelta(days=21),
                         people["Wren"])  # fmt: skip


# The shelf of the shop: sizes that the ferry's engines need, measured, one quarter-millimetre shim short. [mm]
SHELF = (("0.10", 2, "0.101"), ("0.15", 0, ""), ("0.20", 3, "0.199"), ("0.25", 5, "0.251"), ("0.50", 1, "0.500"))


def load_shelf(conn: Conn, people: dict[str, UUID]) -> None:
    """Put the shop's shims on the shelf."""
    for size, count, measured in SHELF:
        shelf.put_on_shelf(conn, LotTyped(uuid4(), f"{size} mm", count, f"{measured} mm" if measured else "", "M-31",
                                          "9.40", "141.2 mm"), people["Ines"])  # fmt: skip


def play_run(conn: Conn, job_id: UUID, people: dict[str, UUID], run: RunPlay, ago: timedelta) -> UUID:
    """Cut a hole pass by pass up to where the run was left; return the hole."""
    hole = next(one for one in jobs.list_holes(conn, job_id) if one.number == run.hole)
    by, run_id = people[run.by], uuid4()
    wanted = cut_runs.RunWanted(run_id, run.depth, "0.25 mm", hold_reason="the deck of the sister was not read flat")
    cut_runs.begin_run(conn, hole.hole_id, wanted, by)
    for kind in CHECKS:
        cut_runs.note_on_run(conn, hole.hole_id, run_id, cut_runs.RunNoted(uuid4(), kind), by)
    at = datetime.now(UTC) - ago
    for number, seconds in enumerate(run.pass_s, start=1):
        at += timedelta(seconds=seconds)
        if cut_runs.is_counted_out(conn, hole.hole_id, run_id):
            break
        cut_runs.end_pass(conn, hole.hole_id, run_id, uuid4(), number, by, at)
    if run.ledge:
        cut_runs.finish_run(conn, hole.hole_id, run_id, "", by)
        for kind in (RunMarkKind.DEBURRED, RunMarkKind.WIDTH):
            cut_runs.note_on_run(conn, hole.hole_id, run_id, cut_runs.RunNoted(uuid4(), kind), by)
    else:
        cut_runs.note_on_run(
            conn, hole.hole_id, run_id, cut_runs.RunNoted(uuid4(), RunMarkKind.PAUSED, "home time"), by
        )
    return hole.hole_id


def fit_after_run(conn: Conn, job_id: UUID, people: dict[str, UUID], run: RunPlay, hole_id: UUID) -> None:
    """Put the liner in on its shim, measured."""
    facts = read_job_facts(conn, job_id)
    mark = facts.liner(facts.standing_fittings(hole_id)[-1].liner_id).mark
    shims = (fitting.ShimFitted("0.25", run.shim_measured, "bevel down"),)
    fitting.record_fitting(conn, hole_id, uuid4(), mark, shims, people["Wren"], made_ready=fitting.ALL_READY)
