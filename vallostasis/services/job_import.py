"""A whole job from its file: as it was where it is not here yet, or as a copy beside the one that is."""

from collections.abc import Callable, Container
from dataclasses import dataclass, fields, is_dataclass, replace
from datetime import UTC, datetime
from typing import Any
from uuid import UUID, uuid4, uuid5

from vallostasis.core.brought_in.rules import (
    refuse_photo_names,
    refuse_what_contradicts_itself,
    refuse_what_nobody_typed,
)
from vallostasis.core.brought_in.typed_again import Differs, typed_again
from vallostasis.core.errors import CoreError
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import CardVersion
from vallostasis.core.tape.fact_kinds import FACT_KINDS
from vallostasis.documents.job_file import (
    CardOnFile,
    JobFile,
    event_numbers,
    facts_on_file,
    with_events,
)
from vallostasis.documents.job_on_file import JobOnFile
from vallostasis.services.block import judge_facts
from vallostasis.services.chain import links_of_file
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.spec_cards import read_card
from vallostasis.store import gauges, jobs, materials, people, setting_masters, whole_job
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.new_record_facts import NewBroughtIn
from vallostasis.store.rows import Conn

GAUGE_IDS = {"gauge_id", "gauge_version_id"}
MASTER_IDS = {"setting_master_id", "setting_master_version_id"}
CARD_IDS = {"spec_card_id", "spec_card_version_id"}
# Every other id in a job's rows is of the job alone, and a copy gets one of its own.
SHOP_IDS = GAUGE_IDS | MASTER_IDS | CARD_IDS
OWN_IDS = {field.name for kind in FACT_KINDS for field in fields(kind.row_type)} - SHOP_IDS
# What judging rows that do not fit together may stumble over.
STUMBLES = (CoreError, LookupError, StopIteration, RuntimeError, ArithmeticError, ValueError, TypeError)


@dataclass(frozen=True, slots=True)
class JobBroughtIn:
    """The job as it is here now, its number, and what of the file is not as it seems."""

    job_id: UUID
    number: str
    marked: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class JobWish:
    """How a job is to come in, from which file, and who brings it."""

    file_name: str
    sha256: str
    as_copy: bool = False
    number: str = ""
    without_photos: bool = False


def import_job(conn: Conn, read: JobOnFile, wish: JobWish, by: UUID) -> JobBroughtIn:
    """Bring a job in as it was read from its file, which must keep to what may be typed here; it is on record.

    One that is here already is refused, unless it is to be a copy under a number of its own.
    """
    file, photos, as_copy, number = read.file, read.photos, wish.as_copy, wish.number
    facts = facts_on_file(file)
    marked = _held_to_the_rules(file, facts)
    _ask_for_photos(facts, photos, wish.without_photos)
    if as_copy:
        facts = _as_copy(facts)
    facts = replace(facts, job=replace(facts.job, number=number.strip() or facts.job.number))
    _refuse_twice(conn, facts, as_copy)
    numbers = event_numbers(facts)
    drawn = whole_job.draw_event_numbers(conn, len(numbers))
    facts = with_events(facts, dict(zip(numbers, drawn, strict=True)))
    try:
        facts = _with_cards(conn, _with_masters(conn, _with_gauges(conn, facts)), file.history.cards)
        _add_materials(conn, facts)
        whole_job.add_whole_job(conn, facts, _people(conn), photos)
        words = "; ".join(marked)
        record_fact(conn, NewBroughtIn(facts.job.job_id, wish.file_name, wish.sha256, as_copy, words), by)
        judge_facts(load_job_facts(conn, facts.job.job_id))
    except whole_job.Contradiction as error:
        raise Refused(f"The file contradicts itself: {error}", "file") from None
    except STUMBLES as error:
        raise Refused(f"The file contradicts itself: its rows do not fit together ({error}).", "file") from None
    return JobBroughtIn(facts.job.job_id, facts.job.number, marked)


def _held_to_the_rules(file: JobFile, facts: JobFacts) -> tuple[str, ...]:
    """Refuse what nobody can have recorded; return what is taken and marked."""
    try:
        refuse_what_nobody_typed(file)
        refuse_what_contradicts_itself(facts, datetime.now(UTC))
        refuse_photo_names(note.photo_sha256 for note in facts.notes)
        marked = [_marked(one) for one in typed_again(facts)]
    except CoreError as error:
        raise Refused(f"The file contradicts itself: {str(error).rstrip('.')}.", "file") from None
    on_file = {one.version.spec_card_version_id for one in file.history.cards}
    if not facts.cards_chosen or any(one.spec_card_version_id not in on_file for one in facts.cards_chosen):
        raise Refused("The file contradicts itself: a card that judged the job is not in it.", "file")
    if file.head and file.head != links_of_file(file)[-1].sha256:
        marked.insert(0, "the file was changed after it was written: its head is not that of what it says")
    return tuple(marked)


def _marked(one: Differs) -> str:
    said = f"“{one.reading.typed}” holds {one.reading.value_um.normalize():f} µm"
    return f"entry {one.reading.event}: {said}, {one.explained_by}"


def _ask_for_photos(facts: JobFacts, photos: dict[str, bytes], without_photos: bool) -> None:
    """A job does not lose its photos unasked."""
    missing = {note.photo_sha256 for note in facts.notes if note.photo_here} - set(photos)
    if missing and not without_photos:
        count = "One photo of this job is" if len(missing) == 1 else f"{len(missing)} photos of this job are"
        raise Refused(
            f"{count} not in this file: bring in the ZIP that the proof page gives out, or leave them behind.",
            "file",
            RefusalCode.ASKS,
        )


def _refuse_twice(conn: Conn, facts: JobFacts, as_copy: bool) -> None:
    for job in jobs.list_jobs(conn):
        if job.job_id == facts.job.job_id:
            raise Refused(
                f"Job {job.number}, {job.name}, is here already: leave it, or bring the file in as a copy.",
                "file",
                RefusalCode.TAKEN,
            )
        if job.number.casefold() == facts.job.number.casefold():
            what = "give the copy another" if as_copy else "bring the file in as a copy under another number"
            raise Refused(f"Job number {job.number} is taken: {what}.", "number", RefusalCode.TAKEN)


def _as_copy(facts: JobFacts) -> JobFacts:
    """Give every row of the job an id of its own, and name it so wherever another row refers to it."""
    new_id = uuid4()

    def rename(old: UUID) -> UUID:
        return uuid5(new_id, str(old))

    rows = {kind.rows: _renamed(getattr(facts, kind.rows), OWN_IDS, rename) for kind in FACT_KINDS}
    return replace(facts, job=_renamed(facts.job, {"job_id"}, rename), **rows)


def _renamed(part: Any, names: Container[str], rename: Callable[[UUID], UUID]) -> Any:  # noqa: ANN401
    """Give the ids of those names other values, wherever they stand."""
    if isinstance(part, tuple):
        return tuple(_renamed(one, names, rename) for one in part)
    if not is_dataclass(part) or isinstance(part, type):
        return part
    changes = {}
    for field in fields(part):
        value = getattr(part, field.name)
        if isinstance(value, UUID) and field.name in names:
            changes[field.name] = rename(value)
        elif isinstance(value, tuple) or is_dataclass(value):
            changes[field.name] = _renamed(value, names, rename)
    return replace(part, **changes) if changes else part


def _by(ids: dict[UUID, UUID]) -> Callable[[UUID], UUID]:
    """Rename what is listed, leave the rest."""
    return lambda old: ids.get(old, old)


def _with_gauges(conn: Conn, facts: JobFacts) -> JobFacts:
    """Use the gauges that are known here; one that is not, or became another, is added."""
    ids: dict[UUID, UUID] = {}
    renaming = _by(ids)
    by_gauge: dict[UUID, list[GaugeVersion]] = {}
    for version in facts.gauge_versions:
        by_gauge.setdefault(version.gauge_id, []).append(version)
    for gauge_id, versions in by_gauge.items():
        new = [one for one in versions if not whole_job.gauge_version_exists(conn, one.gauge_version_id)]
        if any(whole_job.gauge_has_version(conn, gauge_id, one.version) for one in new):
            new = versions
            ids.update({gauge_id: uuid4()} | {one.gauge_version_id: uuid4() for one in versions})
        for one in new:
            own = _renamed(one, GAUGE_IDS, renaming)
            taken = {g.name.casefold() for g in gauges.list_gauges(conn) if g.gauge_id != own.gauge_id}
            name = own.name if own.name.casefold() not in taken else f"{own.name} of {facts.job.number}"
            whole_job.add_gauge_version_as(conn, replace(own, name=name))
    renamed: JobFacts = _renamed(facts, GAUGE_IDS, renaming)
    return renamed


def _add_materials(conn: Conn, facts: JobFacts) -> None:
    """Write down materials that this shop has not written down itself; what it has goes before the file."""
    here = {one.name.casefold() for one in materials.list_materials(conn)}
    person_id = _people(conn)
    for one in facts.materials:
        if one.name.casefold() not in here:
            materials.add_material(conn, one.name, one.alpha_per_k, one.hottest_c, one.source, person_id(one.saved_by))


def _with_masters(conn: Conn, facts: JobFacts) -> JobFacts:
    """Use the setting masters that are known here; one that is not, or became another, is added."""
    ids: dict[UUID, UUID] = {}
    for master in facts.masters:
        if whole_job.master_version_exists(conn, master.setting_master_version_id):
            continue
        if whole_job.master_has_version(conn, master.setting_master_id, master.version):
            ids[master.setting_master_version_id] = uuid4()
            ids.setdefault(master.setting_master_id, uuid4())
        own = _renamed(master, MASTER_IDS, _by(ids))
        here = setting_masters.list_masters(conn)
        taken = {one.name.casefold() for one in here if one.setting_master_id != own.setting_master_id}
        name = own.name if own.name.casefold() not in taken else f"{own.name} of {facts.job.number}"
        whole_job.add_master_version_as(conn, replace(own, name=name))
    renamed: JobFacts = _renamed(facts, MASTER_IDS, _by(ids))
    return renamed


def _with_cards(conn: Conn, facts: JobFacts, cards: tuple[CardOnFile, ...]) -> JobFacts:
    """Use the cards that are known here; one that is not, or became another, is added."""
    person_id = _people(conn)
    ids: dict[UUID, UUID] = {}
    renaming = _by(ids)
    for on_file in cards:
        version: CardVersion = on_file.version
        if whole_job.card_version_exists(conn, version.spec_card_version_id):
            continue
        if whole_job.card_has_version(conn, version.spec_card_id, version.version):
            ids[version.spec_card_version_id] = uuid4()
            ids.setdefault(version.spec_card_id, uuid4())
        own = _renamed(version, CARD_IDS, renaming)
        whole_job.add_card_version_as(conn, own, read_card(on_file.card), person_id(version.saved_by))
    renamed: JobFacts = _renamed(facts, CARD_IDS, renaming)
    return renamed


def _people(conn: Conn) -> Callable[[str], UUID]:
    """Who is meant by a name; somebody new is added."""
    known = {person.name.casefold(): person.person_id for person in people.list_people(conn)}

    def person_id(name: str) -> UUID:
        if not 1 <= len(name.strip()) <= 60:
            raise Refused("A name in the file is empty or too long.", "file")
        if name.casefold() not in known:
            known[name.casefold()] = people.add_person(conn, name).person_id
        return known[name.casefold()]

    return person_id
