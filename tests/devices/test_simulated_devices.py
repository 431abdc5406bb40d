"""The simulated devices: rocks taken at their turning point, mishaps noticed, thermometers, a creeping zero."""

import threading
import time
from collections.abc import Callable, Iterator
from decimal import Decimal
from uuid import uuid4

import pytest

from vallostasis.core.errors import NotationError
from vallostasis.core.gauges.turning_point import turning_point
from vallostasis.core.gauges.zero_checks import zero_holds
from vallostasis.core.notation.gauge_line import WrongUnit, compile_pattern, read_gauge_line, read_thermometer_line
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.devices.gauge_link import GaugeLink, LinkNow, LinkSettings, LinkState
from vallostasis.devices.simulated_gauge import (
    Manner,
    SimulatedGauge,
    SimulatedThermometer,
    SurveyTip,
    parse_survey_tip,
)
from vallostasis.services.demo_devices import surveyed_truth_um

PATIENCE_S = 20
LINE = "survey 26-057 block-bore hole-2 level 119380 axis 45 zero 127002.032"
ROCKED = Manner(0.7, 0.25, 30, rocked=True)


class Clock:
    """Time that goes on when it is told to. [s]"""

    def __init__(self) -> None:
        self.now = 0.0

    def __call__(self) -> float:
        return self.now


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def bore_gauge(clock: Clock) -> Iterator[SimulatedGauge]:
    gauge = SimulatedGauge(0, lambda tip: 0.0, 0.7, 0.25, 5, surveyed_truth_um, ROCKED, clock)
    yield gauge
    gauge.server_close()


def _stream(gauge: SimulatedGauge, clock: Clock, seconds: float) -> tuple[list[float], list[float]]:
    times, values = [], []
    pattern = compile_pattern("{value} {unit}")
    for _ in range(int(seconds * 30)):
        clock.now += 1 / 30
        line = gauge.say()
        if line is not None:
            times.append(clock.now)
            values.append(metres(read_gauge_line(line, pattern, "mm").value_um))
    return times, values


@pytest.mark.parametrize("dropped", ["0", "0.25"])
def test_a_rocked_gauge_gives_the_truth_of_the_place_it_was_told(
    bore_gauge: SimulatedGauge, clock: Clock, dropped: str
) -> None:
    bore_gauge.hear(LINE)
    bore_gauge.hear(f"drop {dropped}")
    tip = parse_survey_tip(LINE)
    assert tip is not None
    truth = surveyed_truth_um(tip)
    assert truth is not None
    found = turning_point(*_stream(bore_gauge, clock, 6))
    assert found is not None
    assert len(found.turning_points_m) >= 4
    assert found.value_m == pytest.approx((truth - 127002.032) / 1e6, abs=2e-6)
    assert found.spread_m < 4e-6


def test_where_the_tip_stands_changes_what_is_read(bore_gauge: SimulatedGauge, clock: Clock) -> None:
    read = {}
    for axis in (45, 135):
        bore_gauge.hear(LINE.replace("axis 45", f"axis {axis}"))
        found = turning_point(*_stream(bore_gauge, clock, 6))
        assert found is not None
        read[axis] = found.value_m
    # The egg is squeezed by 2.5 thou, near 52°.
    assert read[45] - read[135] == pytest.approx(2.5 * 25.4e-6 * 0.97, abs=4e-6)


def test_a_zero_that_creeps_is_found_when_it_is_looked_at_again(bore_gauge: SimulatedGauge, clock: Clock) -> None:
    """Three micrometres a minute for ten minutes: found; not looked at, every reading would carry it."""
    gauge = GaugeVersion(uuid4(), uuid4(), "Bore gauge", "bore gauge", 1, Decimal("2.54"), Decimal("1.8"), "", "")
    on_ring = "survey shop master ring zero 127002.032"
    bore_gauge.hear(on_ring)
    for drift, holds in (("0", True), ("3", False)):
        bore_gauge.hear(f"drift {drift}")
        clock.now += 600
        found = turning_point(*_stream(bore_gauge, clock, 5))
        assert found is not None
        assert zero_holds(Decimal(repr(round(found.value_m * 1e6, 2))), gauge) is holds


def test_lines_that_place_a_tip_are_understood_or_left_alone() -> None:
    assert parse_survey_tip(LINE) == SurveyTip("26-057", "block-bore", "hole-2", 119380, 45, None, None, 127002.032)
    for strange in ("survey", "survey a b", "survey a b c level", "survey a b c level x", "at 5 6h depth", ""):
        assert parse_survey_tip(strange) is None


def _until(link: GaugeLink, wanted: Callable[[LinkNow], bool]) -> LinkNow:
    deadline = time.monotonic() + PATIENCE_S
    pause = threading.Event()
    while time.monotonic() < deadline:
        now = link.now()
        if wanted(now):
            return now
        pause.wait(0.02)
    raise AssertionError(link.now())


@pytest.fixture(params=["bore gauge", "micrometer", "depth gauge", "thermometer"])
def device(request: pytest.FixtureRequest) -> Iterator[tuple[str, SimulatedGauge, GaugeLink]]:
    """One of the devices, talking, and the link that hears it."""
    kind = str(request.param)
    served: SimulatedGauge
    if kind == "thermometer":
        served = SimulatedThermometer(0, 24.0, 21.0, 3)
    else:
        served = SimulatedGauge(0, lambda tip: 30.0, 0.5, 1, 2, manner=ROCKED if kind == "bore gauge" else None)
    threading.Thread(target=served.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True).start()
    unit = "°C" if kind == "thermometer" else "mm"
    url = f"socket://127.0.0.1:{served.server_address[1]}"
    link = GaugeLink(LinkSettings(url, "{value} {unit}", unit, True))  # type: ignore[arg-type]
    link.open()
    _until(link, lambda now: now.state is LinkState.LIVE)
    yield kind, served, link
    link.close()
    served.shutdown()
    served.server_close()


def test_a_wrong_unit_and_a_lost_line_are_noticed_on_every_device(
    device: tuple[str, SimulatedGauge, GaugeLink],
) -> None:
    kind, served, link = device
    served.hear("unit F" if kind == "thermometer" else "unit inch")
    wrong = _until(link, lambda now: now.state is LinkState.WRONG_UNIT)
    assert "unit key" in wrong.message
    served.hear("unit C" if kind == "thermometer" else "unit mm")
    live = _until(link, lambda now: now.state is LinkState.LIVE)
    assert (live.warmth is not None) is (kind == "thermometer")
    served.hear("hush")
    assert "sends nothing" in _until(link, lambda now: now.state is LinkState.SILENT).message


def test_a_thermometer_creeps_to_the_room(clock: Clock) -> None:
    probe = SimulatedThermometer(0, 30.0, 20.0, 1, settles_s=600)
    probe._clock = clock
    probe._started = 0.0
    pattern = compile_pattern("{value} {unit}")
    read = []
    for at in (0, 600, 6000):
        clock.now = at
        line = probe.say()
        assert line is not None
        read.append(float(read_thermometer_line(line, pattern).celsius))
    probe.server_close()
    # After one time constant 1/e of the distance is left.
    assert read == pytest.approx([30.0, 20 + 10 / 2.718, 20.0], abs=0.25)


def test_lines_of_a_thermometer_are_read_exactly_or_refused() -> None:
    pattern = compile_pattern("{value} {unit}")
    assert read_thermometer_line("23.4 °C", pattern).celsius == Decimal("23.4")
    with pytest.raises(WrongUnit, match="°F"):
        read_thermometer_line("74.1 F", pattern)
    with pytest.raises(NotationError, match="does not fit"):
        read_thermometer_line("warm", pattern)
