"""What does not add up on a job: causes weighed, experiments on record, cases kept and found again."""

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.causes.bore_table import BORE_CAUSES, BORE_CHECKS
from vallostasis.core.causes.cases import likeness, shape_as_text, shape_from_text, shape_of
from vallostasis.core.causes.experiments import Looked, as_of, look_at
from vallostasis.core.causes.table import HEIGHTS, Cause, Check, Known, Pattern
from vallostasis.core.notation.lengths import Unit, metres
from vallostasis.core.notation.typed_lengths import parse_length
from vallostasis.core.records.experiments import Experiment, Matter
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.services.refused import RefusalCode, Refused, typed_at
from vallostasis.store import causes
from vallostasis.store.causes import CaseOfShop
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_cause_facts import NewExperiment, NewExperimentResult, NewKeptCase
from vallostasis.store.rows import Conn

# So many cases are shown beside a block. House rule.
MOST_CASES = 5


@dataclass(frozen=True, slots=True)
class CaseFound:
    """A case of the shop, and how alike it lies to what is at hand. [1]"""

    case: CaseOfShop
    alike: float


@dataclass(frozen=True, slots=True)
class CausesNow:
    """What does not add up with what was tried, how each cause shows, what each check asks, cases that look like it.

    ``kept`` is the cause of the case that was kept last on this job, empty without one.
    """

    looked: Looked
    shows: dict[str, str]
    asks: dict[str, str]
    cases: tuple[CaseFound, ...]
    kept: str


def known_now(conn: Conn) -> Known:
    """Return the causes and checks of heights, the shop's own among them."""
    return HEIGHTS.with_own([one.cause for one in causes.own_causes(conn)],
                            [one.check for one in causes.own_checks(conn)])  # fmt: skip


def own_names(conn: Conn) -> frozenset[str]:
    """Return the names of causes and checks that the shop wrote."""
    return frozenset(one.name for one in causes.own_causes(conn)) | {one.name for one in causes.own_checks(conn)}


def look_now(conn: Conn, job_id: UUID, matter: Matter) -> CausesNow:
    """Weigh what may be behind what does not add up on a job."""
    known = known_now(conn)
    facts = load_job_facts(conn, job_id)
    looked = look_at(facts, matter, known)
    shows = {one.name: one.shows for one in known.causes} | {one[0]: one[1] for one in BORE_CAUSES}
    asks = {one.name: one.asks for one in (*known.checks, *BORE_CHECKS)}
    kept = [one.cause for one in facts.standing(facts.kept_cases) if one.matter is matter]
    return CausesNow(looked, shows, asks, _alike(conn, job_id, looked, matter), kept[-1] if kept else "")


def _alike(conn: Conn, job_id: UUID, looked: Looked, matter: Matter) -> tuple[CaseFound, ...]:
    """Cases of other jobs that lie as this one does, the likest first. House rule: below a half none does."""
    if isinstance(looked.found, str) or not looked.found.explained:
        return ()
    shape = shape_of(looked.found.holes)
    found = [CaseFound(one, likeness(shape, shape_from_text(one.shape))) for one in causes.kept_cases(conn, "")
             if one.matter == matter and one.job_id != job_id]  # fmt: skip
    return tuple(sorted((one for one in found if one.alike >= 0.5), key=lambda one: -one.alike)[:MOST_CASES])


def cases_now(conn: Conn, words: str) -> tuple[CaseOfShop, ...]:
    """Return the cases of the shop; with words only those that answer them, the best first."""
    found = causes.kept_cases(conn, words)
    return tuple(one for one in found if one.rank > 0) if words.strip() else found


@dataclass(frozen=True, slots=True)
class Begin:
    """One thing that is about to be changed or looked at; the client makes the id."""

    experiment_id: UUID
    matter: Matter
    check: str
    holes: tuple[int, ...]
    change: str
    expected: str


def begin_experiment(conn: Conn, job_id: UUID, begun: Begin, by: UUID) -> None:
    """Put on record what is changed, before it is known what comes of it; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.experiment_id == begun.experiment_id for one in facts.experiments):
        return
    looked = look_at(facts, begun.matter, known_now(conn))
    if looked.open_one is not None:
        raise Refused(f"One change at a time: “{looked.open_one.change}” is still open. Write down what came of it, or "
                      "strike it out on the tape.", "change", RefusalCode.TAKEN)  # fmt: skip
    if not begun.change.strip():
        raise Refused("Say what is changed or looked at.", "change")
    if not begun.expected.strip():
        raise Refused("Say what you expect before you look: afterwards everybody knew.", "expected")
    if begun.check and _check(conn, begun.matter, begun.check) is None:
        raise Refused(f"There is no check called “{begun.check}”.", "check")
    missing = [number for number in begun.holes if facts.hole_numbered(number) is None]
    if missing:
        raise Refused(f"There is no hole {missing[0]} in this block.", "holes")
    record_fact(conn, NewExperiment(begun.experiment_id, job_id, begun.matter, begun.check,
                                    ",".join(str(one) for one in begun.holes), begun.change.strip(),
                                    begun.expected.strip()), by)  # fmt: skip


def _check(conn: Conn, matter: Matter, name: str) -> Check | None:
    if matter is Matter.BORES:
        return next((one for one in BORE_CHECKS if one.name == name), None)
    return known_now(conn).check(name)


@dataclass(frozen=True, slots=True)
class CameOf:
    """What came of an experiment: a number as typed with the unit of a bare one, words, minutes, money."""

    value: str
    bare_unit: Unit
    words: str
    minutes: float
    money: float | None


def settle_experiment(conn: Conn, job_id: UUID, experiment_id: UUID, came: CameOf, by: UUID) -> None:
    """Write down what came of an experiment; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    one = _experiment(facts, experiment_id)
    if any(each.experiment_id == experiment_id for each in facts.standing(facts.experiment_results)):
        return
    value_um, typed, unit = None, "", ""
    if came.value.strip():
        with typed_at("value"):
            read = parse_length(came.value, came.bare_unit, None, True)
        if abs(metres(read.value_um)) > 0.01:
            raise Refused("That is more than 10 mm: is the unit right?", "value")
        value_um, typed, unit = read.value_um, read.typed, read.unit
    elif one.check_name:
        raise Refused("Type what it read, 0 where it changed nothing.", "value")
    elif not came.words.strip():
        raise Refused("Say what came of it; that nothing changed is worth as much.", "words")
    record_fact(conn, NewExperimentResult(job_id, experiment_id, value_um, typed, unit, came.words.strip(),
                                          Decimal(str(came.minutes)),
                                          None if came.money is None else Decimal(str(came.money))), by)  # fmt: skip


def _experiment(facts: JobFacts, experiment_id: UUID) -> Experiment:
    found = next((one for one in facts.standing(facts.experiments) if one.experiment_id == experiment_id), None)
    if found is None:
        raise Refused("There is no such experiment on this job, or it was struck out.", "experiment_id")
    return found


@dataclass(frozen=True, slots=True)
class Keep:
    """A case that is kept: what it was, under which words it is to be found."""

    case_id: UUID
    matter: Matter
    symptom: str
    cause: str
    words: str


def keep_case(conn: Conn, job_id: UUID, kept: Keep, by: UUID) -> None:
    """Keep what was settled: its pattern as it was, what was tried in vain, what found it and in how many minutes."""
    facts = lock_job_facts(conn, job_id)
    if any(one.case_id == kept.case_id for one in facts.kept_cases):
        return
    known = known_now(conn)
    looked = look_at(facts, kept.matter, known)
    for value, field, why in (
        (kept.symptom, "symptom", "Say in a few words how it showed."),
        (kept.cause, "cause", "Say what it was."),
    ):
        if not value.strip():
            raise Refused(why, field)
    settled = [one for one in looked.tried if one.result is not None]
    if not settled:
        raise Refused("Nothing was tried on this job yet: a case is kept once a check has found its cause.", "cause")
    # What was read right since leaves nothing over: the pattern is kept as it stood before the first look.
    first = look_at(as_of(facts, settled[0].experiment.event), kept.matter, known).found
    if isinstance(first, str):
        raise Refused(first, "matter")
    checks = {one.name: one for one in (*known.checks, *BORE_CHECKS)}
    told = [one for one in settled if (check := checks.get(one.experiment.check_name)) is not None
            and check.share(kept.cause) and one.result is not None and one.result.value_um]  # fmt: skip
    found_with = told[-1] if told else settled[-1]
    leads = "\n".join(one.experiment.change for one in settled if one is not found_with)
    minutes = sum((one.result.minutes for one in settled if one.result is not None), Decimal(0))
    record_fact(conn, NewKeptCase(kept.case_id, job_id, kept.matter, kept.symptom.strip(),
                                  shape_as_text(shape_of(first.holes)), leads, kept.cause.strip(),
                                  found_with.experiment.change, minutes, kept.words.strip()), by)  # fmt: skip


def set_cause(conn: Conn, cause: Cause, low: str, high: str, bare_unit: Unit, by: UUID) -> None:
    """Save a cause of the shop's own; it takes the place of one of its name."""
    if not cause.name.strip():
        raise Refused("Give the cause a name.", "name")
    if not cause.shows.strip():
        raise Refused("Say how it shows.", "shows")
    with typed_at("low"):
        least = parse_length(low, bare_unit, None, True).value_um
    with typed_at("high"):
        most = parse_length(high, bare_unit, None, True).value_um
    if least >= most and cause.pattern not in (Pattern.SHIMMED, Pattern.SPACER):
        raise Refused("The greatest effect has to be more than the least.", "high")
    causes.set_cause(conn, cause, least, most, by)


def set_check(conn: Conn, check: Check, standard: str, bare_unit: Unit, by: UUID) -> None:
    """Save a check of the shop's own; it takes the place of one of its name."""
    known = known_now(conn)
    for value, field, why in ((check.name, "name", "Give the check a name."),
                              (check.asks, "asks", "Say which number is typed, and which way it counts.")):  # fmt: skip
        if not value.strip():
            raise Refused(why, field)
    missing = [name for name, _ in check.finds if known.cause(name) is None]
    if missing or not check.finds:
        raise Refused(
            f"There is no cause called “{missing[0]}”." if missing else "Name a cause that it finds.", "finds"
        )
    with typed_at("standard"):
        within = parse_length(standard, bare_unit, None, True).value_um
    if within <= 0:
        raise Refused("Every reading is uncertain by something: type by how much.", "standard")
    causes.set_check(conn, check, within, by)
