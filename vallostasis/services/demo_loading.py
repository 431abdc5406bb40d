"""Playing the invented jobs into the store, the way people would have recorded them."""

from datetime import timedelta
from uuid import UUID, uuid4

from vallostasis.core.bores.scan_columns import ScanKind, ScanLayout
from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.demo import ferry_starboard as starboard
from vallostasis.demo import hill_tractor, narrow_boat, winding_engine
from vallostasis.demo import narrow_boat_brindle as brindle
from vallostasis.demo import pump_no_4 as pump
from vallostasis.demo import sawmill_hauler as sawmill
from vallostasis.demo.hidden_truth import DemoJob, TypedReading
from vallostasis.demo.route_play import seconds
from vallostasis.demo.survey_play import SurveyPlay
from vallostasis.documents.scan_file import read_scan
from vallostasis.services import fitting, gauge_links, jobs, readings, scans, setups, spec_cards, surveys, zeros
from vallostasis.services.demo_boring import bore_tamsin, look_at_tamsin
from vallostasis.services.demo_calendar import day_before, load_calendar
from vallostasis.services.demo_causes import play_false_leads
from vallostasis.services.demo_clamping import load_fixtures, tighten_marram
from vallostasis.services.demo_devices import TALKING, THERMOMETERS
from vallostasis.services.demo_heat import play_drop
from vallostasis.services.demo_honing import play_round, set_demo_hone
from vallostasis.services.demo_matching import take_order
from vallostasis.services.demo_money import break_estimate, load_money, load_prices, send_home
from vallostasis.services.demo_pulls import load_press_tools, play_pull
from vallostasis.services.demo_route import (
    play_clocks_and_waits,
    play_findings,
    play_mark,
    play_preparation,
    play_schools,
)
from vallostasis.services.demo_runs import fit_after_run, load_cutter, load_shelf, play_run
from vallostasis.services.demo_shop import load_shop
from vallostasis.services.reading_target import ReadingToTake
from vallostasis.store import cutters, gauges, setting_masters, thermometers
from vallostasis.store import gauge_links as gauge_link_rows
from vallostasis.store import jobs as job_rows
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.new_facts import NewSetup
from vallostasis.store.rows import Conn


def store_is_empty(conn: Conn) -> bool:
    """Whether there is no job yet."""
    return not job_rows.list_jobs(conn)


def load_demo(conn: Conn) -> UUID:
    """Load the invented shop and its jobs into an empty store; return the id of the main job."""
    people = load_shop(conn)
    main_job = load_demo_job(conn, ferry.demo_job(), people)
    play_false_leads(conn, main_job, people)
    take_order(conn, load_demo_job(conn, sawmill.demo_job(), people), people)
    load_demo_job(conn, pump.demo_job(), people)
    load_demo_job(conn, narrow_boat.demo_job(), people)
    load_press_tools(conn, people)
    load_fixtures(conn, people)
    _fit_brindle(conn, people)
    tighten_marram(conn, load_demo_job(conn, hill_tractor.demo_job(), people), people)
    _bore_tamsin(conn, people)
    _scan_pump(conn, people)
    _drop_pump(conn, people)
    load_cutter(conn, people)
    load_shelf(conn, people)
    _cut_starboard(conn, people)
    load_prices(conn, people)
    break_estimate(conn, people, load_demo_job)
    send_home(conn, people, load_demo_job, day_before(9))
    load_calendar(conn, people)
    load_money(conn, people)
    return main_job


def _scan_pump(conn: Conn, people: dict[str, UUID]) -> None:
    """The first bore of the fire pump, scanned free and under the plate by the simulated instrument."""
    job_id = next(one.job_id for one in job_rows.list_jobs(conn) if one.number == pump.NUMBER)
    layout = ScanLayout(ScanKind.POLAR, (0, 1, 2), "mm", "mm")
    for clamped, load in ((False, "free, no plate"), (True, "torque plate on, gasket in")):
        text = scans.simulated_scan(load_job_facts(conn, job_id), 1, clamped)
        ask = scans.ScanAsk(uuid4(), 1, load, "simulated roundness instrument", "bore-1.csv", layout)
        scans.bring_in_scan(conn, job_id, ask, read_scan(text.encode()), people["Ines"])


def _drop_pump(conn: Conn, people: dict[str, UUID]) -> None:
    """Liners of the fire pump dropped hot and cold: one is in and needed a push, the next is ready."""
    job_id = next(one.job_id for one in job_rows.list_jobs(conn) if one.number == pump.NUMBER)
    for play in pump.drops():
        play_drop(conn, job_id, people, play)


def _fit_brindle(conn: Conn, people: dict[str, UUID]) -> None:
    """The sister of the narrow-boat: one hole ready, one pulled in, read, bored and honed."""
    job_id = load_demo_job(conn, brindle.demo_job(), people)
    play_pull(conn, job_id, people, brindle.pull())
    rounds = brindle.hone_rounds()
    pressed, bored, *honed = brindle.bore_two((None, brindle.BORED_UM, *(one.left_um for one in rounds)))
    _play_survey(conn, job_id, people, pressed)
    for main in brindle.mains(pressed=True):
        _play_survey(conn, job_id, people, main)
    play_mark(conn, job_id, people, brindle.bored())
    _play_survey(conn, job_id, people, bored)
    set_demo_hone(conn, job_id, people)
    for one, survey in zip(rounds, honed, strict=True):
        play_round(conn, job_id, people, one)
        _play_survey(conn, job_id, people, survey)


def _bore_tamsin(conn: Conn, people: dict[str, UUID]) -> None:
    """The steam cylinder: decided, bored to its step, read again, looked at."""
    job_id = load_demo_job(conn, winding_engine.demo_job(), people)
    bore_tamsin(conn, job_id, people)
    _play_survey(conn, job_id, people, winding_engine.bored())
    look_at_tamsin(conn, job_id, people)


def _cut_starboard(conn: Conn, people: dict[str, UUID]) -> None:
    """The sister of the main job: five holes cut, proved and fitted, the sixth left in the middle."""
    job_id = load_demo_job(conn, starboard.demo_job(), people)
    for place, run in enumerate(starboard.runs()):
        hole_id = play_run(conn, job_id, people, run, timedelta(hours=30 - 4 * place))
        if run.ledge:
            _take_readings(conn, job_id, people, run.ledge)
            fit_after_run(conn, job_id, people, run, hole_id)
            _take_readings(conn, job_id, people, run.protrusion)


def load_demo_job(conn: Conn, demo: DemoJob, people: dict[str, UUID]) -> UUID:
    """Play one job into the store; return its id."""
    card_id = spec_cards.add_card(conn, demo.card, people["Ines"])
    new = job_rows.NewJob(demo.number, demo.name, demo.customer, demo.complaint, demo.serial, invented=True)
    job_id = jobs.take_in_job(conn, new, card_id, people["Ines"])
    for liner in demo.block.liners:
        jobs.add_liner(conn, job_id, liner.mark, liner.make, liner.batch)
    _take_readings(conn, job_id, people, demo.before_fitting)
    for survey in (one for one in demo.surveys if one.before_fitting):
        _play_survey(conn, job_id, people, survey)
    play_schools(conn, job_id, people, demo.route)
    play_findings(conn, job_id, people, demo.route)
    play_preparation(conn, job_id, people, demo.route)
    for hole in job_rows.list_holes(conn, job_id):
        if hole.number not in demo.block.fitted:
            continue
        written = demo.shims.get(hole.number)
        shims = (
            ()
            if written is None
            else (fitting.ShimFitted(written.nominal, written.measured, "bevel down", confirmed=True),)
        )
        ready = fitting.MadeReady(() if demo.route.fitted_with else tuple(fitting.ReadyTick), demo.route.fitted_with)
        fitting.record_fitting(conn, hole.hole_id, uuid4(), demo.block.fitted[hole.number], shims, people["Wren"],
                               made_ready=ready)  # fmt: skip
    _take_readings(conn, job_id, people, demo.after_fitting)
    later = [one for one in demo.surveys if not one.before_fitting]
    times = {one.ago_h for one in later} | {one.ago_h for one in demo.route.marks}
    for ago_h in sorted(times, reverse=True):
        for survey in (one for one in later if one.ago_h == ago_h):
            _play_survey(conn, job_id, people, survey)
        for mark in (one for one in demo.route.marks if one.ago_h == ago_h):
            play_mark(conn, job_id, people, mark)
    play_clocks_and_waits(conn, job_id, people, demo.route)
    return job_id


def _play_survey(conn: Conn, job_id: UUID, people: dict[str, UUID], survey: SurveyPlay) -> None:
    by = people["Tobiah"]
    gauge = next(one for one in gauges.list_gauges(conn) if one.name == survey.gauge)
    master = next((one for one in setting_masters.list_masters(conn) if one.name == survey.master), None)
    new = NewSetup(job_id, survey.quantity, gauge.gauge_id, "", "", survey.hold_down, survey.torque_nm, True,
                   survey.zeroed_on, load=survey.load, method=survey.method)  # fmt: skip
    how = setups.HowTyped("inch", None if master is None else master.setting_master_id, survey.master_c)
    setups.change_setup(conn, new, by, how)
    if survey.block_c:
        surveys.take_temperature(conn, job_id, uuid4(), "room", "", "21", by)
        surveys.take_temperature(conn, job_id, uuid4(), "part", "", survey.block_c, by)
    for key in dict.fromkeys(one.part for one in survey.readings):
        if survey.part_c:
            surveys.take_temperature(conn, job_id, uuid4(), "part", key, survey.part_c, by)
    asks = list[tuple[ReadingToTake, UUID]]()
    for typed in survey.readings:
        ask = ReadingToTake(
            uuid4(), survey.quantity, None, typed.place.hour, typed.liner_mark, "", typed.text, typed.bare_unit, True,
            "", survey.anew and not asks, None, part=typed.part, level_um=typed.place.level_um,
            axis_deg=typed.place.axis_deg, along_um=typed.place.along_um, across_um=typed.place.across_um,
            waited_s=seconds(survey.ago_h),
        )  # fmt: skip
        asks.append((ask, people[typed.by]))
    readings.take_readings(conn, job_id, asks)
    if survey.zero_found:
        zeros.check_zero(conn, job_id, survey.quantity, survey.zero_found, "thou", people["Ines"])


def link_demo_gauge(conn: Conn, port: int) -> None:
    """Let the demo's devices talk over ports of this machine from that one on, where they do not already."""
    by_name = {gauge.name: gauge for gauge in gauges.list_gauges(conn)}
    for place, name in enumerate(TALKING):
        url, gauge = f"socket://127.0.0.1:{port + place}", by_name.get(name)
        link = None if gauge is None else gauge_link_rows.find_gauge_link(conn, gauge.gauge_id)
        if gauge is not None and (link is None or (link.simulated and link.url != url)):
            gauge_links.set_up_link(conn, gauge.gauge_id, url, ferry.GAUGE_LINE_PATTERN, "mm", simulated=True)
    switch, url = cutters.present_switch(conn), f"socket://127.0.0.1:{port + len(TALKING) + len(THERMOMETERS)}"
    if switch is None or (switch.simulated and switch.url != url):
        cutters.set_up_switch(conn, url, simulated=True)
    known = {one.name: one for one in thermometers.list_thermometers(conn)}
    for place, (name, lies_on) in enumerate(THERMOMETERS, start=len(TALKING)):
        url, present = f"socket://127.0.0.1:{port + place}", known.get(name)
        if present is None or (present.simulated and present.url != url):
            thermometers.add_thermometer(conn, name, lies_on, url, ferry.GAUGE_LINE_PATTERN, simulated=True)


def _take_readings(conn: Conn, job_id: UUID, people: dict[str, UUID], read: tuple[TypedReading, ...]) -> None:
    asks = []
    for typed in read:
        ask = ReadingToTake(
            reading_id=uuid4(),
            quantity=typed.quantity,
            hole=typed.hole,
            hour=typed.hour,
            liner_mark=typed.liner_mark,
            land="",
            text=typed.text,
            bare_unit=typed.bare_unit,
            confirmed=True,
            read_before="correct" if typed.corrects else "",
            new_pass=False,
            part_temp_c=None,
        )
        asks.append((ask, people[typed.by]))
    readings.take_readings(conn, job_id, asks)
