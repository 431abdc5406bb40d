"""Playing what people wrote down on the routes of the invented jobs into the store."""

from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from vallostasis.core.records.route_marks import MarkKind
from vallostasis.demo.route_play import MarkPlay, RoutePlay, seconds
from vallostasis.services import findings, preparation, route
from vallostasis.services.route import AtOperation
from vallostasis.store.fact_rows import list_facts
from vallostasis.store.rows import Conn


def play_schools(conn: Conn, job_id: UUID, people: dict[str, UUID], play: RoutePlay) -> None:
    """Choose the sides that the job follows otherwise than the shop."""
    for one in play.schools:
        route.choose_school(conn, job_id, one.question, one.side, one.reason, people[one.by], only_preview=False)


def play_findings(conn: Conn, job_id: UUID, people: dict[str, UUID], play: RoutePlay) -> None:
    """Write down what was found, and what is not read by name."""
    for one in play.findings:
        written = findings.FindingWritten(
            uuid4(),
            one.kind,
            one.hole,
            one.part,
            one.word,
            one.words,
            one.figure,
            lies=findings.LiesAt(
                one.hour, one.until_hour, one.distance, one.width, None, one.from_depth, one.until_depth, one.catches
            ),
        )
        findings.note_finding(conn, job_id, written, people[one.by])
    for waiver in play.waivers:
        for part in waiver.parts:
            findings.waive(conn, job_id, waiver.quantity, part, True, waiver.reason, people[waiver.by])


def play_preparation(conn: Conn, job_id: UUID, people: dict[str, UUID], play: RoutePlay) -> None:
    """Write down how the block was made ready to be cut, and what was looked at."""
    for step in play.steps:
        done = preparation.StepDone(uuid4(), step.kind, step.place, step.count, step.words)
        preparation.note_step(conn, job_id, done, people[step.by])
    for one in play.looks:
        look = preparation.LookTaken(uuid4(), one.kind, None, one.outcome, one.words, one.radius)
        preparation.note_inspection(conn, job_id, look, people[one.by])


def play_mark(conn: Conn, job_id: UUID, people: dict[str, UUID], mark: MarkPlay) -> None:
    """Mark an operation by hand."""
    route.mark_operation(conn, job_id, AtOperation(mark.operation, mark.hole), MarkKind.DONE, people[mark.by],
                         mark.words, mark.count, seconds(mark.ago_h), mark.hold_reason)  # fmt: skip


def play_clocks_and_waits(conn: Conn, job_id: UUID, people: dict[str, UUID], play: RoutePlay) -> None:
    """Start and stop clocks, and write down what was waited for."""
    for wait in play.waits:
        today = datetime.now(UTC).date()
        since = today - timedelta(days=wait.since_days)
        ends = None if wait.expected_in_days is None else since + timedelta(days=wait.expected_in_days)
        at = AtOperation(wait.operation, wait.hole)
        route.note_wait(conn, job_id, at, wait.cause, wait.words, ends, people[wait.by], since)
        if wait.came:
            route.end_wait(conn, job_id, list_facts(conn, "waits", job_id)[-1].wait_id, wait.came, people[wait.by])
    for clock in play.clocks:
        at, by = AtOperation(clock.operation, clock.hole), people[clock.by]
        route.run_clock(conn, job_id, at, True, by, seconds(clock.from_h))
        if clock.to_h:
            route.run_clock(conn, job_id, at, False, by, seconds(clock.to_h))
