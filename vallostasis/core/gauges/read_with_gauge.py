"""What a gauge shows, typed: a deviation, or the whole size. House rule: read alike whenever it is read again."""

from dataclasses import replace

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.senses import senses_of
from vallostasis.core.features.usual_lengths import ask_if_below_step, whole_size_of
from vallostasis.core.gauges.turning_point import is_rocked, least_of_rocks
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange, ParsedLength, parse_diameter, parse_length
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.rows import Setup, ZeroedOn


def read_with_gauge(
    text: str,
    bare_unit: Unit,
    setup: Setup,
    gauge: GaugeVersion,
    expected: ExpectedRange | None,
    confirmed: bool,
    from_gauge: bool = False,
) -> ParsedLength:
    """Read what a gauge shows: a deviation from what it was zeroed on, or the whole size where that was typed. [µm]

    Of rocks read off by eye, parted by semicolons, the smallest is taken and all are kept. House rule; raises
    NotationError where it is no length, or asks which of two it is.
    """
    rocks = [part for part in text.split(";") if part.strip()]
    if len(rocks) < 2 or not is_rocked(gauge.kind):
        return _read_one(text, bare_unit, setup, gauge, expected, confirmed, from_gauge)
    read = [_read_one(part, bare_unit, setup, gauge, expected, confirmed, False) for part in rocks]
    least = least_of_rocks([float(one.value_um) for one in read])
    return replace(next(one for one in read if float(one.value_um) == least), typed=text.strip())


def _read_one(
    text: str,
    bare_unit: Unit,
    setup: Setup,
    gauge: GaugeVersion,
    expected: ExpectedRange | None,
    confirmed: bool,
    from_gauge: bool,
) -> ParsedLength:
    senses = senses_of(setup.quantity)
    reads = parse_diameter if feature_of(setup.quantity).is_diameter else parse_length
    as_deviation = reads(text, bare_unit, None, True, senses)
    if setup.zeroed_on not in (ZeroedOn.DATUM, ZeroedOn.PART) and (as_deviation.unit_was_typed or not confirmed):
        of_size = whole_size_of(as_deviation, setup.zero_um)
        if of_size is not None:
            return of_size
    parsed = reads(text, bare_unit, expected, confirmed, senses)
    # A turning point that a gauge worked out lies between its steps; a typed number as small is a slip of the unit.
    if not confirmed and not from_gauge:
        ask_if_below_step(parsed, gauge.resolution_um, expected)
    return parsed
