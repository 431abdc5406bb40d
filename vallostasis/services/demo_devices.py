"""The demo's devices: what each would read of the invented jobs. Light to bring in, they start by themselves."""

from decimal import Decimal

from vallostasis.core.records.rows import Place, Quantity
from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.demo import narrow_boat
from vallostasis.demo import sawmill_hauler as sawmill
from vallostasis.demo.hidden_truth import NOISE_SHARE, SLED, GaugeTruth
from vallostasis.demo.shop_life import part_of_study_um
from vallostasis.demo.survey_play import BORE_GAUGE, LONG_MICROMETER
from vallostasis.devices.pass_switch import SimulatedSwitch
from vallostasis.devices.simulated_gauge import STUDY, Manner, SimulatedGauge, SimulatedThermometer, SurveyTip, Tip

# What talks in the demo, each at its own port after the first: gauges by name, then thermometers.
TALKING = (ferry.TALKING_GAUGE, BORE_GAUGE.name, LONG_MICROMETER.name)
THERMOMETERS = (("Block probe", "part"), ("Room thermometer", "room"), ("Oven clip", "block"), ("Liner clip", "liner"))
# How far the block from the demo's oven and the liner from its cold are from what is planned, and how much slower. [K]
OVEN_OFF, COLD_OFF = (-2.2, 0.85), (1.6, 1.18)
# Gauges, thermometers, and the switch of the cutter.
DEVICES = len(TALKING) + len(THERMOMETERS) + 1


def demo_devices(port: int, seed: int) -> list[SimulatedGauge]:
    """Open the demo's devices at ports from that one on: gauges, thermometers, the switch of the cutter."""

    def gauge(place: int, truth: GaugeTruth, rocked: bool = False) -> SimulatedGauge:
        noise = truth.repeatability_um * NOISE_SHARE
        manner = Manner(noise / 2 if rocked else noise, truth.resolution_um / (10 if rocked else 1),
                        30 if rocked else 10, rocked)  # fmt: skip
        return SimulatedGauge(port + place, standing_truth_um, noise, truth.resolution_um, seed + place,
                              surveyed_truth_um, manner)  # fmt: skip

    return [
        gauge(0, SLED),
        gauge(1, BORE_GAUGE, rocked=True),
        gauge(2, LONG_MICROMETER),
        SimulatedThermometer(port + 3, 24.0, 21.0, seed + 3),
        SimulatedThermometer(port + 4, 21.0, 21.0, seed + 4),
        SimulatedThermometer(
            port + 5, 80.0 + OVEN_OFF[0], 21.0, seed + 6, off_k=OVEN_OFF[0], slower=OVEN_OFF[1], rests=True
        ),
        SimulatedThermometer(
            port + 6, COLD_OFF[0] - 18.0, 21.0, seed + 7, off_k=COLD_OFF[0], slower=COLD_OFF[1], rests=True
        ),
        SimulatedSwitch(port + 7, seed + 5),
    ]


def surveyed_truth_um(tip: SurveyTip) -> float | None:
    """What a perfect gauge would find on a surveyed part of the demo; None on a part that is not invented. [µm]"""
    if tip.job == STUDY:
        return part_of_study_um(tip.quantity, tip.part)
    if tip.quantity == Quantity.TRIAL_FIT.value.replace(" ", "-") and tip.level_um is not None:
        # A depth gauge beside a flange on its way in follows it.
        return tip.level_um
    if tip.job != narrow_boat.NUMBER:
        return None
    exact = [None if one is None else Decimal(repr(one)) for one in (tip.level_um, tip.along_um, tip.across_um)]
    place = Place(level_um=exact[0], axis_deg=tip.axis_deg, along_um=exact[1], across_um=exact[2])
    quantity = Quantity(tip.quantity.replace("-", " "))
    truth = narrow_boat.truth_um(quantity, tip.part, place)
    warm = narrow_boat.WARM_BLOCK if quantity is Quantity.BLOCK_BORE else 1.0
    return None if truth is None else truth * warm


def standing_truth_um(tip: Tip) -> float:
    """What a perfect gauge would read where the tip stands: the liner's mark tells the block. [µm]"""
    block = sawmill.BLOCK if sawmill.BLOCK.liner(tip.liner) is not None else ferry.BLOCK
    return block.standing_um(tip.hole, tip.hour, tip.quantity == "protrusion", tip.liner, tip.cut_um, tip.shim_um)
