"""Causes and checks of the shop's own, and cases kept on any job."""

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.causes.table import Cause, Check, CheckAt, Pattern
from vallostasis.core.records.experiments import Matter
from vallostasis.store.changes import announce
from vallostasis.store.rows import Conn, fetch_all

UM = 1e-6


@dataclass(frozen=True, slots=True)
class OwnCause:
    """A cause of the shop's own, as it is kept. [µm]"""

    name: str
    shows: str
    pattern: str
    low_um: Decimal
    high_um: Decimal
    prior: Decimal
    set_by: str

    @property
    def cause(self) -> Cause:
        """What it is to the core. [m]"""
        return Cause(self.name, self.shows, Pattern(self.pattern), float(self.low_um) * UM, float(self.high_um) * UM,
                     float(self.prior))  # fmt: skip


@dataclass(frozen=True, slots=True)
class OwnCheck:
    """A check of the shop's own, as it is kept; what it finds stands line by line. [µm], [min]"""

    name: str
    tools: str
    minutes: Decimal
    asks: str
    check_at: str
    finds: str
    standard_um: Decimal
    set_by: str

    @property
    def check(self) -> Check:
        """What it is to the core. [m]"""
        finds = tuple((one, 1.0) for one in self.finds.splitlines() if one)
        return Check(self.name, self.tools, float(self.minutes), self.asks, CheckAt(self.check_at), finds,
                     float(self.standard_um) * UM)  # fmt: skip


@dataclass(frozen=True, slots=True)
class CaseOfShop:
    """A case kept on any job, and how well it answers the words that were asked for. [1]"""

    case_id: UUID
    job_id: UUID
    job: str
    matter: Matter
    symptom: str
    shape: str
    false_leads: str
    cause: str
    found_with: str
    minutes: Decimal
    words: str
    kept_by: str
    rank: float


def own_causes(conn: Conn) -> tuple[OwnCause, ...]:
    """Return the newest of each name."""
    query = """
        SELECT DISTINCT ON (c.name) c.name, c.shows, c.pattern, c.low_um, c.high_um, c.prior, p.name AS set_by
          FROM shop_cause c JOIN person p ON p.person_id = c.set_by
         ORDER BY c.name, c.event DESC
    """
    return tuple(fetch_all(conn, OwnCause, query))


def own_checks(conn: Conn) -> tuple[OwnCheck, ...]:
    """Return the newest of each name."""
    query = """
        SELECT DISTINCT ON (c.name) c.name, c.tools, c.minutes, c.asks, c.check_at, c.finds, c.standard_um,
               p.name AS set_by
          FROM shop_check c JOIN person p ON p.person_id = c.set_by
         ORDER BY c.name, c.event DESC
    """
    return tuple(fetch_all(conn, OwnCheck, query))


def set_cause(conn: Conn, cause: Cause, low_um: Decimal, high_um: Decimal, by: UUID) -> None:
    """Save a cause; it takes the place of one of its name."""
    conn.execute(
        """
        INSERT INTO shop_cause (name, shows, pattern, low_um, high_um, prior, set_by)
        VALUES (%(name)s, %(shows)s, %(pattern)s, %(low_um)s, %(high_um)s, %(prior)s, %(by)s)
        """,
        {"name": cause.name, "shows": cause.shows, "pattern": cause.pattern, "low_um": low_um, "high_um": high_um,
         "prior": Decimal(str(cause.prior)), "by": by},
    )  # fmt: skip
    announce(conn, None)


def set_check(conn: Conn, check: Check, standard_um: Decimal, by: UUID) -> None:
    """Save a check; it takes the place of one of its name."""
    conn.execute(
        """
        INSERT INTO shop_check (name, tools, minutes, asks, check_at, finds, standard_um, set_by)
        VALUES (%(name)s, %(tools)s, %(minutes)s, %(asks)s, %(check_at)s, %(finds)s, %(standard_um)s, %(by)s)
        """,
        {"name": check.name, "tools": check.tools, "minutes": Decimal(str(check.minutes)), "asks": check.asks,
         "check_at": check.at, "finds": "\n".join(name for name, _ in check.finds), "standard_um": standard_um,
         "by": by},
    )  # fmt: skip
    announce(conn, None)


def kept_cases(conn: Conn, words: str) -> tuple[CaseOfShop, ...]:
    """Return the cases of all jobs that were not struck out, ranked by the words where any are asked for."""
    query = """
        SELECT c.case_id, c.job_id, j.name AS job, c.matter, c.symptom, c.shape, c.false_leads, c.cause, c.found_with,
               c.minutes, c.words, p.name AS kept_by,
               ts_rank(to_tsvector('english', concat_ws(' ', c.symptom, c.false_leads, c.cause, c.found_with, c.words)),
                       websearch_to_tsquery('english', %(words)s))::float8 AS rank
          FROM kept_case c
          JOIN job j USING (job_id)
          JOIN person p ON p.person_id = c.kept_by
         WHERE NOT coalesce((SELECT s.struck FROM strike s WHERE s.job_id = c.job_id AND s.of_event = c.event
                              ORDER BY s.event DESC LIMIT 1), false)
         ORDER BY rank DESC, c.event DESC
    """
    return tuple(fetch_all(conn, CaseOfShop, query, {"words": words}))
