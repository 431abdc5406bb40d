"""What the shop learned, over all its jobs; the life of a block; jobs found by words."""

from datetime import datetime

from vallostasis.core.records.estimates import MoneyRules
from vallostasis.core.shop_log.learned import Opening, ShopLearned, learn_from, life_of
from vallostasis.core.shop_log.search import JobFound, find_jobs
from vallostasis.documents.learned_csv import learned_csv
from vallostasis.store import jobs, money
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def learned_now(conn: Conn, now: datetime) -> tuple[ShopLearned, MoneyRules]:
    """Bring together what all jobs teach, and what the shop says of returns."""
    every = [load_job_facts(conn, one.job_id) for one in jobs.list_jobs(conn)]
    return learn_from(every, now), money.money_rules(conn)


def learned_table(conn: Conn, now: datetime) -> str:
    """Return what the shop learned as CSV."""
    return learned_csv(learned_now(conn, now)[0])


def block_life(conn: Conn, serial: str) -> tuple[Opening, ...]:
    """Return every opening of a block."""
    return life_of([load_job_facts(conn, one.job_id) for one in jobs.list_jobs(conn)], serial)


def jobs_found(conn: Conn, words: str) -> tuple[JobFound, ...]:
    """Find past and present jobs by words."""
    return find_jobs([load_job_facts(conn, one.job_id) for one in jobs.list_jobs(conn)], words)
