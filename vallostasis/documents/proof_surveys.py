"""What the proof says of surveys: every feature that was read, part by part."""

from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.features.parts import parts_of
from vallostasis.core.features.plan import surveyed_features
from vallostasis.core.gauges.circumstances import how_read
from vallostasis.core.notation.lengths import both_depth
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.shapes.clock import angle_of_hour, hour_name, hour_of_angle
from vallostasis.core.surveys.derived import Derived, worst_of_each
from vallostasis.core.surveys.places import PlaceRead, newest_set
from vallostasis.core.surveys.survey import Survey, survey_of

_Rows = tuple[tuple[str, tuple[PlaceRead | None, ...]], ...]


@dataclass(frozen=True, slots=True)
class ProofSurvey:
    """One feature on one part as printed: how it was read, its table of values, its form and its state."""

    survey: Survey
    how: str
    worst: tuple[Derived, ...]
    columns: tuple[str, ...]
    rows: _Rows


def proof_surveys(facts: JobFacts) -> tuple[ProofSurvey, ...]:
    """Collect every survey of which anything was read; what is to be read again with what stood before."""
    found = []
    for quantity in surveyed_features(facts.card):
        for part in parts_of(facts, quantity):
            survey = survey_of(facts, quantity, part)
            reading_set = survey.reading_set or newest_set(facts, quantity, part)
            shown = survey.past or survey.places
            if reading_set is not None and any(row.readings or row.unreadable for row in shown):
                columns, rows = _table(survey, shown)
                how = how_read(facts, reading_set, at_20c=survey.at_20c)
                found.append(ProofSurvey(survey, how, worst_of_each(survey.derived), columns, rows))
    return tuple(found)


def _table(survey: Survey, shown: tuple[PlaceRead, ...]) -> tuple[tuple[str, ...], _Rows]:
    """Lay the places out: axes, clock positions or points across, levels or rows down."""
    across: list[object] = []
    round_the_clock = any(row.place.hour is not None and row.place.level_um is not None for row in shown)
    down: dict[object, dict[object, PlaceRead]] = {}
    for row in shown:
        place = row.place
        column = place.axis_deg if place.axis_deg is not None else place.along_um
        if round_the_clock and place.hour is not None:
            column = angle_of_hour(place.hour)
        line = place.level_um if place.level_um is not None else place.across_um
        if column not in across:
            across.append(column)
        down.setdefault(line, {})[column] = row
    across.sort(key=lambda one: float(str(one)) if one is not None else 0.0)
    names = {level.depth_um: level.name for level in survey.pattern.levels}
    rows = []
    for _, cells in sorted(down.items(), key=lambda item: float(str(item[0])) if item[0] is not None else 0.0):
        first = next(iter(cells.values()))
        level = first.place.level_um
        name = names.get(level, "") if level is not None else first.name.split(",")[0]
        rows.append((name or (both_depth(level) if level is not None else ""),
                     tuple(cells.get(one) for one in across)))  # fmt: skip
    return tuple(_column_name(one, round_the_clock) for one in across), tuple(rows)


def _column_name(value: object, round_the_clock: bool) -> str:
    if value is None:
        return ""
    if round_the_clock and isinstance(value, float):
        return hour_name(hour_of_angle(value))
    return f"{value:g}°" if isinstance(value, float) else both_depth(Decimal(str(value)))
