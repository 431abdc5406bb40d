"""Past jobs found by words: symptom, construction, fit, what was odd about them, leads followed in vain.

References
----------
.. [1] G. Salton, M. J. McGill, Introduction to Modern Information Retrieval (1983): terms weighed by how few hold them
   (from memory).
"""

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from math import log

from vallostasis.core.operations.schools import schools_of, side_of
from vallostasis.core.records.job_facts import JobFacts

_WORD = re.compile(r"[\w.]+")


@dataclass(frozen=True, slots=True)
class JobFound:
    """A job that answers, how well, and the lines of it that do."""

    facts: JobFacts
    rank: float
    lines: tuple[str, ...]


def lines_of(facts: JobFacts) -> tuple[str, ...]:
    """Return what of a job can be searched, line by line. House rule."""
    job, card = facts.job, facts.card
    schools = ", ".join(side_of(facts, one.question) for one in schools_of(card))
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    findings = [f"found: {one.part} {one.word} {one.words}".strip() for one in facts.standing(facts.findings)]
    odd = [f"tried: {one.change}, expected {one.expected}" for one in facts.standing(facts.experiments)]
    cases = [f"case: {one.symptom}; it was {one.cause}; in vain {one.false_leads}"
             for one in facts.standing(facts.kept_cases)]  # fmt: skip
    looks = [
        f"bore {numbers[one.hole_id]}: {one.outcome.value} {one.words}" for one in facts.standing(facts.bore_looks)
    ]
    return (f"{job.number} {job.name}, {job.customer}", f"complaint: {job.complaint}",
            f"{card.engine}, {card.construction.value}, {card.block_material}", f"follows: {schools}",
            *findings, *odd, *cases, *looks)  # fmt: skip


def find_jobs(jobs: Sequence[JobFacts], words: str) -> tuple[JobFound, ...]:
    """Find jobs that answer words, the best first.

    Parameters
    ----------
    jobs : sequence of JobFacts
        Of the shop.
    words : str
        What is looked for; the beginning of a word is enough.

    Returns
    -------
    tuple of JobFound
        Those that hold every word. Rank is the sum of the words' weights log(1 + N/n) [1]_ of the module, each times
        how often it stands there.
    """
    terms = [one.casefold() for one in _WORD.findall(words)]
    held = [(facts, lines_of(facts)) for facts in jobs]
    counted = [Counter({term: _count(lines, term) for term in terms}) for _, lines in held]
    holders = {term: sum(one[term] > 0 for one in counted) for term in terms}
    found = []
    for (facts, lines), counts in zip(held, counted, strict=True):
        if not terms or any(counts[term] == 0 for term in terms):
            continue
        rank = sum(counts[term] * log(1 + len(jobs) / holders[term]) for term in set(terms))
        answering = tuple(line for line in lines if any(_count((line,), term) for term in terms))
        found.append(JobFound(facts, rank, answering))
    return tuple(sorted(found, key=lambda one: -one.rank))


def _count(lines: Sequence[str], term: str) -> int:
    return sum(word.casefold().startswith(term) for line in lines for word in _WORD.findall(line))
