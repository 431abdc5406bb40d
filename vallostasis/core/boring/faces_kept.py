"""Faces that stay as they are: a plan that cuts them is refused. Common practice, no published source."""

from vallostasis.core.records.job_facts import JobFacts


def faces_kept(facts: JobFacts) -> tuple[str, ...]:
    """Return which faces must not be cut and why: the deck by its card, others as somebody set a bar by them.

    Common practice: rings of wire let into a deck, a face matched to another part; no published source.
    """
    card = (f"the deck: {facts.card.deck_kept.strip()}",) if facts.card.deck_kept.strip() else ()
    said = (one.not_to_cut.strip() for one in facts.standing(facts.bar_settings))
    return tuple(dict.fromkeys((*card, *(one for one in said if one))))
