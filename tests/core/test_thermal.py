"""Sums of heat and cold against property libraries, handbook figures and other solutions."""

from importlib import import_module
from math import exp, log, pi

import ht
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad, solve_ivp
from scipy.linalg import expm
from scipy.optimize import brentq

from vallostasis.core.errors import OutOfDomain
from vallostasis.core.thermal.drop import (
    Drop,
    Losses,
    Stuff,
    carry_and_drop,
    cooled,
    cools_to,
    in_the_bore,
    wall_mean_c,
)
from vallostasis.core.thermal.films import air_at, biot, film_of
from vallostasis.core.thermal.moist_air import gathered, moist_air, saturation_pa
from vallostasis.core.thermal.room_air import (
    FRESH_CO2,
    FRESH_O2,
    Gas,
    Room,
    carbon_dioxide_at,
    oxygen_at,
    worst_air,
)
from vallostasis.core.thermal.shrink import (
    Course,
    Pair,
    block_needed,
    constant_course,
    course_of,
    liner_needed,
    temperature_by_sum,
)

IRON = Stuff(7200.0, 460.0, 50.0, 10.5e-6)
ALUMINIUM = Stuff(2690.0, 920.0, 150.0, 21.5e-6)


class Air:
    """Property libraries, loaded where they are asked: that takes seconds, which no other worker has to wait for."""

    @staticmethod
    def dry(what: str, *state: object) -> float:
        """CoolProp, dry air or another fluid."""
        found: float = import_module("CoolProp.CoolProp").PropsSI(what, *state)
        return found

    @staticmethod
    def moist(what: str, *state: object) -> float:
        """CoolProp, moist air."""
        found: float = import_module("CoolProp.HumidAirProp").HAPropsSI(what, *state)
        return found

    @staticmethod
    def ashrae(what: str, *state: float) -> float:
        """PsychroLib, in SI."""
        library = import_module("psychrolib")
        library.SetUnitSystem(library.SI)
        found: float = getattr(library, what)(*state)
        return found


@pytest.mark.parametrize("celsius", [-150.0, -78.5, -18.0, 0.0, 20.0, 80.0, 200.0])
def test_air_is_as_coolprop_says(celsius: float) -> None:
    """CoolProp 8, dry air at sea level: within 3.5 %."""
    air, at = air_at(celsius), ("T", celsius + 273.15, "P", 101325, "Air")
    assert air.density == pytest.approx(Air.dry("D", *at), rel=0.02)
    assert air.viscosity == pytest.approx(Air.dry("V", *at), rel=0.025)
    assert air.conductivity == pytest.approx(Air.dry("L", *at), rel=0.035)
    assert air.prandtl == pytest.approx(Air.dry("PRANDTL", *at), rel=0.05)


@pytest.mark.parametrize(
    ("surface", "air", "height"), [(80, 22, 0.13), (-18, 20, 0.15), (-78.5, 25, 0.2), (120, 20, 0.4)]
)
def test_a_film_is_that_of_churchill_and_chu(surface: float, air: float, height: float) -> None:
    """`ht` 1.2 with properties of CoolProp at the film's temperature; radiation by Stefan and Boltzmann's law."""
    between = (surface + air) / 2 + 273.15
    kinematic = Air.dry("V", "T", between, "P", 101325, "Air") / Air.dry("D", "T", between, "P", 101325, "Air")
    prandtl = Air.dry("PRANDTL", "T", between, "P", 101325, "Air")
    grashof = 9.80665 * abs(surface - air) * height**3 / (between * kinematic**2)
    nusselt = ht.conv_free_immersed.Nu_vertical_plate_Churchill(prandtl, grashof)
    expected = nusselt * Air.dry("L", "T", between, "P", 101325, "Air") / height
    film = film_of(surface, air, height, 0.7)
    assert film.convection == pytest.approx(expected, rel=0.03)
    hot, cold = surface + 273.15, air + 273.15
    assert film.radiation == pytest.approx(0.7 * 5.670374419e-8 * (hot**4 - cold**4) / (hot - cold))
    assert film.total == film.convection + film.radiation


def test_a_film_wants_a_face_and_a_wall_that_conducts() -> None:
    assert film_of(20.0, 20.0, 0.1, 0.0).radiation == 0
    assert biot(1000.0, 0.0105, 50.0) == pytest.approx(0.21)
    for wrong in ((20.0, 20.0, 0.0, 0.7), (20.0, 20.0, 0.1, 1.2)):
        with pytest.raises(OutOfDomain):
            film_of(*wrong)
    with pytest.raises(OutOfDomain):
        air_at(-210.0)
    with pytest.raises(OutOfDomain):
        biot(1.0, 1.0, 0.0)


@pytest.mark.parametrize(("celsius", "relative"), [(25, 0.7), (35, 0.2), (5, 0.9), (20, 0.5), (-5, 0.6)])
def test_the_dew_point_is_that_of_psychrolib_and_coolprop(celsius: float, relative: float) -> None:
    """PsychroLib 2.5 (ASHRAE); below nought its dew point is a frost point. CoolProp humid air above it."""
    air = moist_air(celsius, relative)
    if celsius > 0:
        assert air.ratio == pytest.approx(Air.ashrae("GetHumRatioFromRelHum", celsius, relative, 101325), rel=0.01)
        expected = Air.moist("D", "T", celsius + 273.15, "R", relative, "P", 101325) - 273.15
        found = air.dew_c if air.dew_c >= 0 else air.frost_c
        assert found == pytest.approx(expected, abs=0.15)
    assert (air.dew_c < air.frost_c) is (air.dew_c < 0)
    with pytest.raises(OutOfDomain):
        moist_air(celsius, 0.0)
    with pytest.raises(OutOfDomain):
        moist_air(150.0, 0.5)
    with pytest.raises(OutOfDomain):
        moist_air(90.0, 1.0, 50_000.0)


@pytest.mark.parametrize("celsius", [-80.0, -40.0, -18.0, -1.0, 10.0, 40.0])
def test_vapour_is_saturated_as_psychrolib_says(celsius: float) -> None:
    assert saturation_pa(celsius) == pytest.approx(Air.ashrae("GetSatVapPres", celsius), rel=0.02)


def test_frost_gathers_by_the_analogy_and_a_warm_face_stays_dry() -> None:
    """Heat and mass transfer analogy with properties of CoolProp and a Lewis number of 0.85: within a quarter."""
    air = moist_air(22.0, 0.5)
    found = gathered(air, -18.0, 6.0, 120.0)
    between = Air.dry("D", "T", 275.15, "P", 101325, "Air") * Air.dry("C", "T", 275.15, "P", 101325, "Air")
    carries = 6.0 / (between * 0.85 ** (2 / 3))
    there = 1 / Air.moist("V", "T", 295.15, "R", 0.5, "P", 101325) * Air.moist("W", "T", 295.15, "R", 0.5, "P", 101325)
    at_face = Air.ashrae("GetSatVapPres", -18.0) / (461.5 * 255.15)
    # A Lewis number of 0.85 to the power of two thirds is 0.90, to that of one third 0.95.
    assert found.flux == pytest.approx(carries * (there - at_face), rel=0.03)
    assert found.is_frost
    assert found.frost_m == pytest.approx(5 * found.water_m)
    assert found.water_m == pytest.approx(found.flux * 120 / 1000)
    assert gathered(air, 15.0, 6.0, 120.0).flux == 0
    # The trade's own: 30 to 75 µm a side in two minutes.
    assert 30e-6 <= gathered(moist_air(30.0, 0.8), -18.0, 6.0, 120.0).frost_m <= 90e-6


@pytest.mark.parametrize("gas", list(Gas))
@pytest.mark.parametrize("release", [0.0, 900.0])
def test_a_room_mixes_as_its_balance_says(gas: Gas, release: float) -> None:
    """SciPy's solve_ivp on the balance of a well mixed room; volume of gas by CoolProp."""
    room = Room(gas, 10.0, 60.0, 3.0, release)
    fluid = {"N2": "Nitrogen", "CO2": "CO2"}[gas.value]
    assert room.gas_m3 == pytest.approx(10 / Air.dry("D", "T", 293.15, "P", 101325, fluid), rel=0.008)
    boils, air = (room.gas_m3 / release if release else 0.0), 60 * 3 / 3600

    def slopes(t: float, x: np.ndarray) -> list[float]:
        now = boils if t < release else 0.0
        inside = (0.0, 1.0 if gas is Gas.CARBON_DIOXIDE else 0.0)
        fresh = (FRESH_O2, FRESH_CO2)
        return [(air * f + now * i - (air + now) * one) / 60 for f, i, one in zip(fresh, inside, x, strict=True)]

    share = exp(-room.gas_m3 / 60) if not release else 1.0
    start = [FRESH_O2 * share, FRESH_CO2 * share + (1 - share) * (gas is Gas.CARBON_DIOXIDE)]
    found = solve_ivp(slopes, (0, 3600), start, max_step=5, rtol=1e-9, atol=1e-12, dense_output=True)
    for t in (0.0, 450.0, 900.0, 3600.0):
        assert oxygen_at(room, t) == pytest.approx(found.sol(t)[0], rel=1e-4)
        assert carbon_dioxide_at(room, t) == pytest.approx(found.sol(t)[1], rel=1e-3)
    least, most = worst_air(room)
    assert least == pytest.approx(oxygen_at(room, release))
    assert most == pytest.approx(max(FRESH_CO2, carbon_dioxide_at(room, release)))


def test_with_dry_ice_carbon_dioxide_warns_long_before_oxygen() -> None:
    """As careful computing shows: 3.4 % of it while oxygen is still 20.2 %."""
    room = Room(Gas.CARBON_DIOXIDE, 6.0, 60.0, 2.0, 1800.0)
    oxygen, gas = worst_air(room)
    assert gas > 30_000e-6
    assert oxygen > 0.2
    with pytest.raises(OutOfDomain):
        Room(Gas.NITROGEN, 1.0, 0.0, 1.0, 0.0)


def test_shrinkage_is_the_integral_of_expansion_and_less_than_the_usual_sum() -> None:
    """SciPy's quad over the same straight lines; 31 % too much by a constant down to liquid nitrogen."""
    course = course_of("grey iron", 10.5e-6)
    for celsius in (-195.8, -78.5, -18.0, 0.0, 20.0, 100.0):
        points = [one - 273.15 for one in course.temperatures_k]
        inside = [one for one in points if min(20, celsius) < one < max(20, celsius)]
        expected = quad(course.at, 20.0, celsius, points=inside or None)[0]
        assert course.strain(celsius) == pytest.approx(expected, abs=1e-12)
    assert course.at(20.0) == pytest.approx(10.5e-6)
    assert course.mean(20.0) == pytest.approx(10.5e-6)
    overstates = 10.5e-6 * (-195.8 - 20) / course.strain(-195.8) - 1
    assert overstates == pytest.approx(0.31, abs=0.01)
    # 8 µm on 104 mm at dry ice.
    usual, by_course = (104e-3 * one.strain(-78.5) for one in (constant_course(10.5e-6), course))
    assert by_course - usual == pytest.approx(8e-6, abs=0.5e-6)


@given(st.floats(-190, 200))
def test_aluminium_and_bronze_have_courses_of_their_own(celsius: float) -> None:
    iron, aluminium, bronze = (course_of(name, 10e-6) for name in ("cast iron", "cast aluminium", "bronze"))
    for one in (iron, aluminium, bronze):
        assert one.strain(celsius) * (celsius - 20) >= 0
    assert iron.per_k != aluminium.per_k != bronze.per_k


def test_a_course_is_refused_where_it_is_none_and_beyond_its_ends() -> None:
    for temperatures, rates in (((100.0,), (1e-6,)), ((100.0, 90.0), (1e-6, 1e-6)), ((90.0, 100.0), (1e-6,))):
        with pytest.raises(OutOfDomain):
            Course(temperatures, rates)
    with pytest.raises(OutOfDomain, match="known from"):
        course_of("iron", 1e-5).strain(-260.0)


@given(st.floats(-190, 25), st.floats(5e-6, 80e-6), st.floats(10e-6, 80e-6))
def test_a_pair_that_is_asked_for_leaves_what_was_wanted(liner_c: float, press: float, wanted: float) -> None:
    """Against SciPy's brentq on the clearance itself."""
    pair = Pair(0.095 - press, 0.095, course_of("aluminium", 21.5e-6), course_of("iron", 10.5e-6))
    block_c = block_needed(pair, wanted, liner_c)
    assert block_c is not None
    assert pair.clearance(block_c, liner_c) == pytest.approx(wanted, abs=1e-9)
    expected = brentq(lambda one: pair.clearance(one, liner_c) - wanted, -213, 226)
    assert block_c == pytest.approx(expected, abs=0.01)
    back = liner_needed(pair, wanted, block_c)
    assert back is not None
    assert back == pytest.approx(liner_c, abs=0.05)
    assert block_needed(pair, 0.02, liner_c) is None


def test_the_usual_sum_names_one_temperature_for_the_other() -> None:
    """By hand: 104 mm, 50.8 of press and 50 wanted, 10.8 a million: 89.8 K above 20 °C."""
    found = temperature_by_sum(0.1039492, 0.104, 50e-6, (10.8e-6, 10.5e-6), None, 20.0)
    assert found == pytest.approx(20 + 100.8e-6 / (0.1039492 * 10.8e-6))
    cold = temperature_by_sum(0.1039492, 0.104, 50e-6, (10.8e-6, 10.5e-6), 20.0, None)
    assert cold == pytest.approx(20 - 100.8e-6 / (0.104 * 10.5e-6))
    for block, liner in ((None, None), (20.0, 20.0)):
        with pytest.raises(OutOfDomain, match="the other is asked for"):
            temperature_by_sum(0.1, 0.1, 1e-5, (1e-5, 1e-5), block, liner)
    with pytest.raises(OutOfDomain, match="above nought"):
        temperature_by_sum(0.1, 0.1, 1e-5, (0.0, 1e-5), None, 20.0)


def test_one_node_cools_by_an_exponential_and_says_when() -> None:
    """Closed form: half of what it is off after ln 2 of its time constant."""
    assert cooled(120.0, 20.0, 100.0, 100 * log(2)) == pytest.approx(70.0)
    assert cools_to(120.0, 20.0, 100.0, 70.0) == pytest.approx(100 * log(2))
    assert cools_to(120.0, 20.0, 100.0, 15.0) is None
    assert cools_to(20.0, 20.0, 100.0, 25.0) is None
    with pytest.raises(OutOfDomain):
        cooled(1.0, 2.0, 0.0, 1.0)


DROP = Drop(0.1, 0.104, 0.1039492, 0.15, Stuff(7200.0, 440.0, 50.0, 9.3e-6), Stuff(7200.0, 500.0, 50.0, 1.08e-5))


def test_a_gap_that_closes_takes_less_than_half_of_what_a_constant_one_would() -> None:
    """Both against a closed form: t = C/(k·A)·[β(θ0 − θ) + g_end·ln(θ0/θ)]; a thin dry liner has one to two seconds."""
    found = in_the_bore(DROP, -78.5, 20.0, 0.125, (0.5,))
    assert found.lost.seconds is not None and found.held_constant_s is not None
    liner, ring = DROP.liner_j_k, DROP.ring_j_k(0.125)
    settles = (liner * -78.5 + ring * 20) / (liner + ring)
    gap_end = DROP.clearance(settles, settles) / 2
    start = 98.5
    beta = (DROP.clearance(-78.5, 20.0) / 2 - gap_end) / start
    theta = -gap_end / beta
    both = liner * ring / (liner + ring)
    expected = both / (0.025 * pi * 0.104 * 0.15) * (beta * (start - theta) + gap_end * log(start / theta))
    assert found.lost.seconds == pytest.approx(expected, rel=1e-4)
    assert 1.0 < found.lost.seconds < 2.0
    assert 2 < found.held_constant_s / found.lost.seconds < 3
    assert found.at_times_m[0] == pytest.approx(found.entered_m * 0.75, rel=0.2)
    assert found.biot_block == pytest.approx(0.236, abs=0.001)
    assert found.settles_m < 0


def test_what_touches_is_refused_and_a_slip_fit_is_never_lost() -> None:
    with pytest.raises(OutOfDomain, match="does not enter"):
        in_the_bore(DROP, 20.0, 20.0, 0.125, ())
    slip = Drop(0.1, 0.104, 0.10402, 0.15, IRON, IRON)
    found = in_the_bore(slip, -20.0, 20.0, 0.125, ())
    assert (found.lost.seconds, found.held_constant_s) == (None, None)
    whole = in_the_bore(slip, -20.0, 20.0, None, ())
    assert whole.biot_block is None
    assert whole.settles_m == pytest.approx(0.02e-3, rel=0.01)
    for wrong in ({"inside_m": 0.2}, {"length_m": 0.0}, {"air_k": 0.0}):
        with pytest.raises(OutOfDomain):
            Drop(**{**{"inside_m": 0.1, "outside_m": 0.104, "hole_m": 0.104, "length_m": 0.1, "liner": IRON,
                       "block": IRON}, **wrong})  # type: ignore[arg-type]  # fmt: skip
    with pytest.raises(OutOfDomain):
        DROP.ring_j_k(0.1)
    with pytest.raises(OutOfDomain):
        Stuff(0.0, 1.0, 1.0, 1.0)


def test_two_nodes_with_a_constant_gap_are_a_matrix_exponential() -> None:
    """SciPy's expm: what the shared slopes give as the gap hardly moves (no expansion at all)."""
    stiff = Stuff(7200.0, 460.0, 50.0, 1e-12)
    drop = Drop(0.1, 0.104, 0.1041, 0.15, stiff, stiff)
    g = drop.conducts(0.1e-3)
    liner, ring = drop.liner_j_k, drop.ring_j_k(0.125)
    matrix = np.array([[-g / liner, g / liner], [g / ring, -g / ring]])
    end = expm(matrix * 3.0) @ np.array([-50.0, 60.0])
    moved = Drop(0.1, 0.104, 0.1041, 0.15, Stuff(7200.0, 460.0, 50.0, 1e-9), stiff)
    found = in_the_bore(moved, -50.0, 60.0, 0.125, (3.0,)).at_times_m[0]
    assert (0.1e-3 - found) / (0.104 * 1e-9) == pytest.approx(end[0] - 20, abs=0.05)


def test_carried_through_the_air_it_enters_with_less() -> None:
    """Closed form of both exponentials; later than it takes to touch, it is refused."""
    losses = Losses(12.0, 9.0, 80.0, 20.0)
    found = carry_and_drop(DROP, losses, (-78.5, 60.0), 20.0, (0.0, 20.0, 60.0))
    constant = DROP.liner_j_k / (12.0 * pi * 0.15 * 0.204)
    assert found.liner_c == pytest.approx(20 - 98.5 * exp(-20 / constant))
    assert found.if_after_m[1] == pytest.approx(found.entered_m)
    assert found.if_after_m[0] > found.if_after_m[1] > found.if_after_m[2]
    assert found.too_late_s is not None and found.lost_s is not None
    with pytest.raises(OutOfDomain, match="does not enter any more"):
        carry_and_drop(DROP, losses, (-78.5, 60.0), found.too_late_s + 5, ())
    with pytest.raises(OutOfDomain):
        Losses(0.0, 1.0, 1.0, 20.0)
    always = carry_and_drop(Drop(0.1, 0.104, 0.1041, 0.15, IRON, IRON), losses, (0.0, 30.0), 1.0, ())
    assert (always.lost_s, always.too_late_s) == (None, None)


def test_a_hole_grows_by_the_mean_of_its_wall() -> None:
    """SciPy's quad of a logarithmic profile over the ring: an area mean, no mean of the faces."""
    a, b = 0.05, 0.07
    faces = (40.0, 120.0)
    profile = lambda r: faces[0] + (faces[1] - faces[0]) * log(r / a) / log(b / a)  # noqa: E731
    expected = quad(lambda r: profile(r) * 2 * r, a, b)[0] / (b**2 - a**2)
    assert wall_mean_c(2 * a, 2 * b, faces) == pytest.approx(expected)
    assert expected != pytest.approx(80.0, abs=1)
    with pytest.raises(OutOfDomain):
        wall_mean_c(0.1, 0.1, faces)
