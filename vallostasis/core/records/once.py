"""Working something out of a job's facts once, however often it is asked for."""

from collections.abc import Callable
from functools import wraps
from typing import Concatenate, ParamSpec, TypeVar

from vallostasis.core.records.job_facts import JobFacts

What = ParamSpec("What")
Answer = TypeVar("Answer")


def once(work: Callable[Concatenate[JobFacts, What], Answer]) -> Callable[Concatenate[JobFacts, What], Answer]:
    """Work something out of a job's facts once, however often it is asked for. By definition: facts never change."""

    @wraps(work)
    def remembered(facts: JobFacts, /, *what: What.args, **how: What.kwargs) -> Answer:
        key = (work, what, tuple(sorted(how.items())))
        if key not in facts.worked_out:
            facts.worked_out[key] = work(facts, *what, **how)
        answer: Answer = facts.worked_out[key]
        return answer

    return remembered
