"""Readings of a file read again from what was typed. House rule: the text is what somebody said, the value follows."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.errors import CoreError, NotationError
from vallostasis.core.gauges.read_with_gauge import read_with_gauge
from vallostasis.core.notation.lengths import MICROMETRES_PER, Unit
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Reading, Setup


@dataclass(frozen=True, slots=True)
class Differs:
    """A reading whose value is not what its text says today, with what explains it. [µm]"""

    reading: Reading
    now_um: Decimal | None
    explained_by: str


class DoesNotFollow(CoreError):
    """A reading has a value that no reading of its text gives."""


def typed_again(facts: JobFacts) -> Iterator[Differs]:
    """Read every text again and yield what differs.

    House rule: the recorded value stands where an answer to a question of today, or a bare number taken in another
    unit, gives it; a value that nothing gives raises DoesNotFollow.
    """
    sets = {one.reading_set_id: one for one in facts.sets}
    setups = {one.setup_id: one for one in facts.setups}
    gauges = {one.gauge_version_id: one for one in facts.gauge_versions}
    for reading in facts.readings:
        of = sets[reading.reading_set_id]
        differs = _differs(reading, setups[of.setup_id], gauges[of.gauge_version_id])
        if differs is not None:
            yield differs


def _differs(reading: Reading, setup: Setup, gauge: GaugeVersion) -> Differs | None:
    unit = _unit_of(reading)
    try:
        now = _value_of(reading.typed, unit, setup, gauge)
    except NotationError as asked:
        for answer in asked.suggestions:
            if _is(reading, _tried(answer.text, unit, setup, gauge)):
                return Differs(reading, None, f"it may mean two things today; recorded is “{answer.label}”")
        now = None
    # A whole size typed without its unit was understood as one where nobody had to be asked.
    if _is(reading, now) or _is(reading, _tried(reading.typed, unit, setup, gauge, confirmed=False)):
        return None
    for other in MICROMETRES_PER:
        if _is(reading, _tried(reading.typed, other, setup, gauge)):
            return Differs(reading, now, f"its bare number was taken in {other}")
    said = "nothing that can be read" if now is None else f"{now.normalize():f} µm"
    raise DoesNotFollow(
        f"a reading says “{reading.typed}” and holds {reading.value_um.normalize():f} µm: the text means {said}"
    )


def _unit_of(reading: Reading) -> Unit:
    for unit in MICROMETRES_PER:
        if unit == reading.typed_unit:
            return unit
    raise DoesNotFollow(f"a reading was typed in {reading.typed_unit or 'no unit'}, which is none of ours")


def _is(reading: Reading, value_um: Decimal | None) -> bool:
    return value_um is not None and value_um == reading.value_um


def _value_of(text: str, unit: Unit, setup: Setup, gauge: GaugeVersion, *, confirmed: bool = True) -> Decimal:
    return read_with_gauge(text, unit, setup, gauge, None, confirmed, from_gauge=True).value_um


def _tried(text: str, unit: Unit, setup: Setup, gauge: GaugeVersion, *, confirmed: bool = True) -> Decimal | None:
    try:
        return _value_of(text, unit, setup, gauge, confirmed=confirmed)
    except NotationError:
        return None
