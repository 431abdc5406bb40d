"""Writing a whole job at once, with the ids, times and people it was recorded with elsewhere."""

import contextlib
from collections.abc import Callable, Iterator, Mapping
from typing import Any
from uuid import UUID

import psycopg

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.job_marks import CardChosen, StageMark
from vallostasis.core.measuring.gauges import GaugeVersion, SettingMaster
from vallostasis.core.records import CardVersion
from vallostasis.core.spec_card import SpecCard
from vallostasis.store import notes, spec_cards
from vallostasis.store.changes import announce
from vallostasis.store.revisions import add_revision
from vallostasis.store.rows import Conn, fetch_value


class Contradiction(Exception):
    """The rows of a job do not fit together; the text says which."""


@contextlib.contextmanager
def _fitting_together() -> Iterator[None]:
    try:
        yield
    except (psycopg.IntegrityError, psycopg.DataError) as error:
        raise Contradiction(str(error.diag.message_detail or error.diag.message_primary or error)) from None


def draw_event_numbers(conn: Conn, count: int) -> list[int]:
    """Reserve the next event numbers, in order."""
    rows = conn.execute(
        "SELECT nextval('event_number') FROM generate_series(1, %(count)s)", {"count": count}
    ).fetchall()
    return sorted(int(row[0]) for row in rows)


def gauge_version_exists(conn: Conn, gauge_version_id: UUID) -> bool:
    """Whether a version of a gauge is known here."""
    query = "SELECT 1 FROM gauge_version WHERE gauge_version_id = %(id)s"
    return fetch_value(conn, query, {"id": gauge_version_id}) is not None


def gauge_has_version(conn: Conn, gauge_id: UUID, version: int) -> bool:
    """Whether a gauge has a version of that number, whichever it is."""
    query = "SELECT 1 FROM gauge_version WHERE gauge_id = %(gauge_id)s AND version = %(version)s"
    return fetch_value(conn, query, {"gauge_id": gauge_id, "version": version}) is not None


@_fitting_together()
def add_gauge_version_as(conn: Conn, gauge: GaugeVersion) -> None:
    """Add a version of a gauge with its own ids, and the gauge where it is new."""
    params = {name: getattr(gauge, name) for name in GaugeVersion.__slots__}
    conn.execute(
        """
        INSERT INTO gauge (gauge_id, name, kind) VALUES (%(gauge_id)s, %(name)s, %(kind)s)
        ON CONFLICT (gauge_id) DO NOTHING
        """,
        params,
    )
    conn.execute(
        """
        INSERT INTO gauge_version (gauge_version_id, gauge_id, version, resolution_um, repeatability_um, tip, note,
                                   range_from_um, range_to_um, tip_radius_um, calibrated_on, due_on, owner, master,
                                   faults, repeatability_freedom, reproducibility_um, reproducibility_freedom)
        VALUES (%(gauge_version_id)s, %(gauge_id)s, %(version)s, %(resolution_um)s, %(repeatability_um)s, %(tip)s,
                %(note)s, %(range_from_um)s, %(range_to_um)s, %(tip_radius_um)s, %(calibrated_on)s, %(due_on)s,
                %(owner)s, %(master)s, %(faults)s, %(repeatability_freedom)s, %(reproducibility_um)s,
                %(reproducibility_freedom)s)
        """,
        params,
    )


def master_version_exists(conn: Conn, version_id: UUID) -> bool:
    """Whether a version of a setting master is known here."""
    query = "SELECT 1 FROM setting_master_version WHERE setting_master_version_id = %(id)s"
    return fetch_value(conn, query, {"id": version_id}) is not None


def master_has_version(conn: Conn, setting_master_id: UUID, version: int) -> bool:
    """Whether a setting master has a version of that number, whichever it is."""
    query = "SELECT 1 FROM setting_master_version WHERE setting_master_id = %(id)s AND version = %(version)s"
    return fetch_value(conn, query, {"id": setting_master_id, "version": version}) is not None


@_fitting_together()
def add_master_version_as(conn: Conn, master: SettingMaster) -> None:
    """Add a version of a setting master with its own ids, and the master where it is new."""
    params = {name: getattr(master, name) for name in SettingMaster.__slots__}
    conn.execute(
        """
        INSERT INTO setting_master (setting_master_id, name) VALUES (%(setting_master_id)s, %(name)s)
        ON CONFLICT (setting_master_id) DO NOTHING
        """,
        params,
    )
    conn.execute(
        """
        INSERT INTO setting_master_version (setting_master_version_id, setting_master_id, version, size_um, typed,
                                            standard_um, material, calibrated_on, due_on, owner, note)
        VALUES (%(setting_master_version_id)s, %(setting_master_id)s, %(version)s, %(size_um)s, %(typed)s,
                %(standard_um)s, %(material)s, %(calibrated_on)s, %(due_on)s, %(owner)s, %(note)s)
        """,
        params,
    )


def card_version_exists(conn: Conn, spec_card_version_id: UUID) -> bool:
    """Whether a version of a card is known here."""
    query = "SELECT 1 FROM spec_card_version WHERE spec_card_version_id = %(id)s"
    return fetch_value(conn, query, {"id": spec_card_version_id}) is not None


def card_has_version(conn: Conn, spec_card_id: UUID, version: int) -> bool:
    """Whether a card has a version of that number, whichever it is."""
    query = "SELECT 1 FROM spec_card_version WHERE spec_card_id = %(card_id)s AND version = %(version)s"
    return fetch_value(conn, query, {"card_id": spec_card_id, "version": version}) is not None


@_fitting_together()
def add_card_version_as(conn: Conn, version: CardVersion, card: SpecCard, saved_by: UUID) -> None:
    """Add a version of a card with its own ids, and the card where it is new."""
    conn.execute(
        "INSERT INTO spec_card (spec_card_id) VALUES (%(card_id)s) ON CONFLICT (spec_card_id) DO NOTHING",
        {"card_id": version.spec_card_id},
    )
    conn.execute(
        """
        INSERT INTO spec_card_version (spec_card_version_id, spec_card_id, version, card, saved_at, saved_by)
        VALUES (%(version_id)s, %(card_id)s, %(version)s, %(card)s, %(saved_at)s, %(saved_by)s)
        """,
        {
            "version_id": version.spec_card_version_id,
            "card_id": version.spec_card_id,
            "version": version.version,
            "card": spec_cards.as_document(card),
            "saved_at": version.saved_at,
            "saved_by": saved_by,
        },
    )


@_fitting_together()
def add_whole_job(
    conn: Conn,
    facts: JobFacts,
    stage_marks: tuple[StageMark, ...],
    cards_chosen: tuple[CardChosen, ...],
    person_id: Callable[[str], UUID],
    photos: Mapping[str, bytes],
) -> None:
    """Write every row of a job as it stands in its facts; raise Contradiction where they do not fit together.

    Photos are found by the digest of their bytes; one that is not among them stays behind.
    """
    for statement, rows in _statements(facts, stage_marks, cards_chosen, person_id, photos):
        with conn.cursor() as cursor:
            cursor.executemany(statement, list(rows))
    add_revision(conn, facts.job.job_id)
    announce(conn, facts.job.job_id)


Statement = tuple[str, Iterator[dict[str, Any]]]


def _statements(
    facts: JobFacts,
    stage_marks: tuple[StageMark, ...],
    cards_chosen: tuple[CardChosen, ...],
    person_id: Callable[[str], UUID],
    photos: Mapping[str, bytes],
) -> Iterator[Statement]:
    job_id = facts.job.job_id

    def photo_of(row: dict[str, Any]) -> dict[str, Any]:
        return {"photo": photos.get(row["photo_sha256"]), "marks": notes.as_json(row["marks"])}

    def rows(things: tuple[Any, ...]) -> Iterator[dict[str, Any]]:
        for thing in things:
            row = {name: getattr(thing, name) for name in thing.__slots__}
            people = {f"{name}_id": person_id(row[name]) for name in row if name.endswith("_by")}
            yield {**row, **people, "job_id": job_id}

    yield ADD_JOB, rows((facts.job,))
    yield ADD_BLOCK, rows((facts.job,))
    yield ADD_CARD_CHOSEN, rows(cards_chosen)
    yield ADD_STAGE, rows(facts.stages)
    yield ADD_STAGE_MARK, rows(stage_marks)
    yield ADD_HOLE, rows(facts.holes)
    yield ADD_LINER, rows(facts.liners)
    yield ADD_FITTING, rows(facts.fittings)
    yield ADD_FITTING_SHIM, rows(facts.fitting_shims)
    yield ADD_CUT, rows(facts.cuts)
    yield ADD_FITTING_OUT, rows(facts.fitting_outs)
    yield ADD_SETUP, rows(facts.setups)
    yield ADD_SET, rows(facts.sets)
    yield ADD_READING, rows(facts.readings)
    yield ADD_NOTE, ({**row, **photo_of(row)} for row in rows(facts.notes))
    yield ADD_TEMPERATURE, rows(facts.temperatures)
    yield ADD_STRIKE, rows(facts.strikes)
    yield ADD_CORRECTION, rows(facts.corrections)
    yield ADD_ZERO_CHECK, rows(facts.zero_checks)
    yield ADD_STAMP, rows(facts.stamps)
    yield ADD_UNREADABLE, rows(facts.unreadables)


ADD_JOB = """
    INSERT INTO job (job_id, number, name, customer, complaint, opened_at, invented)
    VALUES (%(job_id)s, %(number)s, %(name)s, %(customer)s, %(complaint)s, %(opened_at)s, %(invented)s)
"""
ADD_BLOCK = "INSERT INTO block (job_id, serial) VALUES (%(job_id)s, %(serial)s)"
ADD_CARD_CHOSEN = """
    INSERT INTO job_card (job_id, spec_card_version_id, chosen_at, chosen_by, reason, event)
    VALUES (%(job_id)s, %(spec_card_version_id)s, %(chosen_at)s, %(chosen_by_id)s, %(reason)s, %(event)s)
"""
ADD_STAGE = """
    INSERT INTO stage (stage_id, job_id, place, name, planned_hours)
    VALUES (%(stage_id)s, %(job_id)s, %(place)s, %(name)s, %(planned_hours)s)
"""
ADD_STAGE_MARK = """
    INSERT INTO stage_mark (stage_id, done, marked_at, marked_by, event)
    VALUES (%(stage_id)s, %(done)s, %(marked_at)s, %(marked_by_id)s, %(event)s)
"""
ADD_HOLE = """
    INSERT INTO hole (hole_id, block_id, number, bank)
    SELECT %(hole_id)s, block_id, %(number)s, %(bank)s FROM block WHERE job_id = %(job_id)s
"""
ADD_LINER = """
    INSERT INTO liner (liner_id, job_id, mark, make, batch)
    VALUES (%(liner_id)s, %(job_id)s, %(mark)s, %(make)s, %(batch)s)
"""
ADD_FITTING = """
    INSERT INTO fitting (fitting_id, hole_id, liner_id, fitted_at, fitted_by, event)
    VALUES (%(fitting_id)s, %(hole_id)s, %(liner_id)s, %(fitted_at)s, %(fitted_by_id)s, %(event)s)
"""
ADD_FITTING_SHIM = """
    INSERT INTO fitting_shim (fitting_id, place, nominal_um, measured_um, typed, side_up)
    VALUES (%(fitting_id)s, %(place)s, %(nominal_um)s, %(measured_um)s, %(typed)s, %(side_up)s)
"""
ADD_CUT = """
    INSERT INTO cut (cut_id, hole_id, depth_um, typed, touch_off_um, passes, shim_um, stop_u_um, note, cut_at, cut_by,
                     event)
    VALUES (%(cut_id)s, %(hole_id)s, %(depth_um)s, %(typed)s, %(touch_off_um)s, %(passes)s, %(shim_um)s,
            %(stop_u_um)s, %(note)s, %(cut_at)s, %(cut_by_id)s, %(event)s)
"""
ADD_FITTING_OUT = """
    INSERT INTO fitting_out (fitting_id, because_cut_id, because_fitting_id, out_at, out_by, event)
    VALUES (%(fitting_id)s, %(because_cut_id)s, %(because_fitting_id)s, %(out_at)s, %(out_by_id)s, %(event)s)
"""
ADD_SETUP = """
    INSERT INTO setup (setup_id, job_id, quantity, gauge_id, land, datum, hold_down, hold_down_torque_nm, shared_zero,
                       chosen_at, chosen_by, event, zeroed_on, zero_um, zero_typed, load, method,
                       setting_master_version_id, master_temp_c, gauge_temp_c, corrects)
    VALUES (%(setup_id)s, %(job_id)s, %(quantity)s, %(gauge_id)s, %(land)s, %(datum)s, %(hold_down)s,
            %(hold_down_torque_nm)s, %(shared_zero)s, %(chosen_at)s, %(chosen_by_id)s, %(event)s,
            %(zeroed_on)s, %(zero_um)s, %(zero_typed)s, %(load)s, %(method)s, %(setting_master_version_id)s,
            %(master_temp_c)s, %(gauge_temp_c)s, %(corrects)s)
"""
ADD_SET = """
    INSERT INTO reading_set (reading_set_id, job_id, setup_id, gauge_version_id, fitting_id, hole_id, after_cut_id,
                             liner_id, part_temp_c, part, opened_at, opened_by, event)
    VALUES (%(reading_set_id)s, %(job_id)s, %(setup_id)s, %(gauge_version_id)s, %(fitting_id)s, %(hole_id)s,
            %(after_cut_id)s, %(liner_id)s, %(part_temp_c)s, %(part)s, %(opened_at)s, %(opened_by_id)s, %(event)s)
"""
ADD_READING = """
    INSERT INTO reading (reading_id, reading_set_id, hour, level_um, axis_deg, along_um, across_um, value_um, typed,
                         typed_unit, taken_at, taken_by, event, recorded_at)
    VALUES (%(reading_id)s, %(reading_set_id)s, %(hour)s, %(level_um)s, %(axis_deg)s, %(along_um)s, %(across_um)s,
            %(value_um)s, %(typed)s, %(typed_unit)s, %(taken_at)s,
            %(taken_by_id)s, %(event)s, %(recorded_at)s)
"""
ADD_NOTE = """
    INSERT INTO reading_note (note_id, reading_id, words, photo, photo_type, photo_sha256, photo_bytes, marks, made_at,
                              made_by, event)
    VALUES (%(note_id)s, %(reading_id)s, %(words)s, %(photo)s, %(photo_type)s, %(photo_sha256)s, %(photo_bytes)s,
            %(marks)s, %(made_at)s, %(made_by_id)s, %(event)s)
"""
ADD_STRIKE = """
    INSERT INTO strike (job_id, reading_id, cut_id, fitting_id, note_id, temperature_id, of_event, struck, reason,
                        undoes, made_at, made_by, event)
    VALUES (%(job_id)s, %(reading_id)s, %(cut_id)s, %(fitting_id)s, %(note_id)s, %(temperature_id)s, %(of_event)s,
            %(struck)s, %(reason)s, %(undoes)s, %(made_at)s, %(made_by_id)s, %(event)s)
"""
ADD_CORRECTION = """
    INSERT INTO zero_correction (reading_set_id, correction_um, standard_um, typed, reason, made_at, made_by, event,
                                 after_event, until_event)
    VALUES (%(reading_set_id)s, %(correction_um)s, %(standard_um)s, %(typed)s, %(reason)s, %(made_at)s,
            %(made_by_id)s, %(event)s, %(after_event)s, %(until_event)s)
"""
ADD_ZERO_CHECK = """
    INSERT INTO zero_check (zero_check_id, job_id, setup_id, moved_um, typed, checked_at, checked_by, event)
    VALUES (%(zero_check_id)s, %(job_id)s, %(setup_id)s, %(moved_um)s, %(typed)s, %(checked_at)s, %(checked_by_id)s,
            %(event)s)
"""
ADD_TEMPERATURE = """
    INSERT INTO temperature (temperature_id, job_id, body, part, celsius, typed, taken_at, taken_by, event)
    VALUES (%(temperature_id)s, %(job_id)s, %(body)s, %(part)s, %(celsius)s, %(typed)s, %(taken_at)s, %(taken_by_id)s,
            %(event)s)
"""
ADD_STAMP = """
    INSERT INTO stamp (stamp_id, job_id, part, letters, made_at, made_by, event)
    VALUES (%(stamp_id)s, %(job_id)s, %(part)s, %(letters)s, %(made_at)s, %(made_by_id)s, %(event)s)
"""
ADD_UNREADABLE = """
    INSERT INTO unreadable (job_id, quantity, fitting_id, hole_id, liner_id, part, hour, level_um, axis_deg, along_um,
                            across_um, unreadable, reason, made_at, made_by, event)
    VALUES (%(job_id)s, %(quantity)s, %(fitting_id)s, %(hole_id)s, %(liner_id)s, %(part)s, %(hour)s, %(level_um)s,
            %(axis_deg)s, %(along_um)s, %(across_um)s, %(unreadable)s, %(reason)s, %(made_at)s, %(made_by_id)s,
            %(event)s)
"""
