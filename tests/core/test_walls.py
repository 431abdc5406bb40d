"""Walls as fields, loads, scans and what does not add up, against closed forms."""

from datetime import UTC, datetime
from decimal import Decimal
from types import SimpleNamespace
from uuid import uuid4

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vallostasis.core.bores.adds_up import disagreements
from vallostasis.core.bores.scan_columns import METRES, ScanKind, ScanLayout, points_of_file, refuse_another_unit
from vallostasis.core.bores.scan_levels import FrontAxis, Turn, polar_of, read_back, scan_profile, shape_of, written
from vallostasis.core.bores.scans import SAME_LEVEL_M, ScanNow, change_of_scans, field_of_scan
from vallostasis.core.bores.wall_field import (
    BEYOND_M,
    FieldLevel,
    clock_lobes,
    clock_weights,
    columns_of_a_turn,
    diameter_levels,
    even_lobes,
    field_of,
)
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.records.rows import Place, Quantity, Setup, ZeroedOn
from vallostasis.core.records.spec_card import BoreTerms
from vallostasis.core.shapes.reference_fit import Reference
from vallostasis.core.surveys.derived import BoreTable
from vallostasis.core.surveys.loads import Held, held, plate_differs
from vallostasis.core.uncertainty.budget import exactly

ANGLES = columns_of_a_turn()
AXES = (0.0, 30.0, 60.0, 90.0, 120.0, 150.0)


def diameter(axis: float, depth: float) -> float:
    turn = np.radians(axis)
    return 0.1 + 20e-6 * np.cos(2 * (turn - 0.5)) * (1 - depth) + 6e-6 * np.cos(4 * (turn - 0.2)) - 30e-6 * depth


def table(depths: tuple[float, ...], axes: tuple[float, ...] = AXES, standard_m: float = 0.0) -> BoreTable:
    cells = tuple(
        tuple(exactly(diameter(axis, depth), standard_m, "own", (depth, axis)) for axis in axes) for depth in depths
    )
    return BoreTable(cells, axes, depths, tuple(str(depth) for depth in depths))


def test_a_field_of_diameters_goes_through_every_reading_and_no_further() -> None:
    depths = (0.02, 0.06, 0.12)
    field = field_of(diameter_levels(table(depths)), depths, even_lobes(ANGLES), ANGLES)
    assert field is not None
    for depth in depths:
        assert field.at(depth) == pytest.approx([diameter(float(angle), depth) for angle in ANGLES], abs=1e-12)
    assert field.depths_m[0] == pytest.approx(0.02 - BEYOND_M)
    assert field.depths_m[-1] == pytest.approx(0.12 + BEYOND_M)
    between = field.at(0.09)
    low, high = sorted((field.at(0.06).mean(), field.at(0.12).mean()))
    assert low <= between.mean() <= high


def test_a_level_of_two_axes_is_no_part_of_the_field() -> None:
    whole, poor = table((0.02, 0.12)), table((0.07,), (0.0, 90.0))
    assert diameter_levels(poor) == ()
    field = field_of(diameter_levels(whole), (0.02, 0.07, 0.12), even_lobes(ANGLES), ANGLES)
    assert field is not None
    assert np.isnan(field.at(0.07)).all()
    assert not np.isnan(field.at(0.03)).any()
    assert field_of((), (0.07,), even_lobes(ANGLES), ANGLES) is None


def test_the_plus_minus_of_a_field_is_that_of_least_squares() -> None:
    # One level, six axes 30° apart, five unknowns: the standard uncertainty of D(θ) averages u·√(5/6). Least squares.
    levels = diameter_levels(table((0.05,), standard_m=1e-6))
    field = field_of(levels, (0.05,), even_lobes(ANGLES), ANGLES, 2.0)
    assert field is not None
    assert field.expanded_m is not None
    mean_square = float(np.mean(field.expanded_m**2))
    assert np.sqrt(mean_square) == pytest.approx(2e-6 * np.sqrt(5 / 6), rel=0.1)


@given(st.integers(3, 16), st.integers(0, 5))
def test_readings_round_the_clock_place_half_as_many_lobes(positions: int, order: int) -> None:
    # Sampling theorem, by definition.
    hours = [at * 360.0 / positions for at in range(positions)]
    wave = np.cos(order * np.radians(hours) - 0.3)
    fitted = clock_lobes(ANGLES) @ clock_weights(hours) @ wave
    if order <= (positions - 1) // 2:
        assert fitted == pytest.approx(np.cos(order * np.radians(ANGLES) - 0.3), abs=1e-9)


def test_steps_opposite_each_other_and_the_diameter_across_have_to_add_up() -> None:
    unworn, wear = 0.1, {0.0: 80e-6, 90.0: 50e-6, 180.0: 30e-6, 270.0: 60e-6}
    cells = tuple(exactly(unworn + wear[axis] + wear[axis + 180], 1e-6, "d", ("d", axis)) for axis in (0.0, 90.0))
    band = tuple(exactly(unworn, 0.5e-6, "b", ("b", axis)) for axis in (0.0, 90.0))
    bore = SimpleNamespace(table=BoreTable((band, cells), (0.0, 90.0), (0.01, 0.03), ("band", "top")))

    def steps(slip: float) -> SimpleNamespace:
        rows = [
            SimpleNamespace(place=Place(hour=hour, level_um=Decimal(30_000)),
                            estimate=exactly(value * (slip if hour == 6.0 else 1.0), 1e-6, "s", ("s", hour)))
            for hour, value in ((9.0, wear[0.0]), (12.0, wear[90.0]), (3.0, wear[180.0]), (6.0, wear[270.0]))
        ]  # fmt: skip
        return SimpleNamespace(steps=SimpleNamespace(read=rows), unworn=band[0], unworn_m=0.01)

    assert disagreements(bore, steps(1.0), 2.0) == ()  # type: ignore[arg-type]
    (found,) = disagreements(bore, steps(2.0), 2.0)  # type: ignore[arg-type]
    assert found.hours == (12.0, 6.0)
    assert found.off.value_m == pytest.approx(60e-6)
    assert disagreements(None, steps(2.0), 2.0) == ()  # type: ignore[arg-type]


def plate(load: str, fasteners: str = "", torque: str | None = None) -> Setup:
    return Setup(uuid4(), Quantity.BLOCK_BORE, uuid4(), "", "", fasteners, None if torque is None else Decimal(torque),
                 True, datetime(2026, 1, 1, tzinfo=UTC), "Wren", 1, ZeroedOn.DATUM, load=load)  # fmt: skip


@pytest.mark.parametrize(
    ("setup", "points"),
    [
        (plate("torque plate on, gasket in", "Head Studs", "95"), 0),
        (plate("torque plate on, gasket in", "head studs", "98.7"), 0),
        (plate("torque plate on, gasket in", "head studs", "99"), 1),
        (plate("torque plate on, no gasket", "set screws", "60"), 3),
        (plate("torque plate on, gasket in"), 2),
        (plate("head on", "head studs", "95"), 0),
        (plate("free, no plate"), 0),
    ],
)
def test_a_plate_is_held_against_the_build(setup: Setup, points: int) -> None:
    build = BoreTerms(plate_fasteners="head studs", plate_gasket="copper", plate_torque_nm=95.0)
    card = SimpleNamespace(bores=build)
    assert len(plate_differs(card, setup)) == points  # type: ignore[arg-type]


def test_the_words_of_a_load_say_how_a_bore_was_held() -> None:
    assert held("torque plate on, no gasket; main caps off") is Held.CLAMPED
    assert held("head on") is Held.CLAMPED
    assert held("free, no plate; main caps torqued") is Held.FREE
    assert held("main caps torqued") is Held.NOT_SAID


def test_angles_are_laid_clockwise_from_the_front_whatever_the_file_has() -> None:
    # By definition: 12 h lies a quarter turn clockwise from the front.
    for front, turn, point in (
        (FrontAxis.PLUS_X, Turn.CLOCKWISE, (0, 2)), (FrontAxis.PLUS_X, Turn.COUNTER, (0, -2)),
        (FrontAxis.MINUS_X, Turn.CLOCKWISE, (0, -2)), (FrontAxis.PLUS_Y, Turn.COUNTER, (2, 0)),
        (FrontAxis.MINUS_Y, Turn.CLOCKWISE, (2, 0)),
    ):  # fmt: skip
        angle, radius = polar_of(np.array([point[0]]), np.array([point[1]]), front, turn)
        assert angle == pytest.approx([90])
        assert radius == pytest.approx([2])


@pytest.mark.parametrize("unit", METRES)
def test_a_file_in_any_unit_is_the_same_bore_and_another_unit_is_named(unit: str) -> None:
    turns = np.arange(0, 360, 5.0)
    rows = np.column_stack([turns, np.full(72, 0.03 / METRES[unit]), np.full(72, 0.05 / METRES[unit])])
    layout = ScanLayout(ScanKind.POLAR, (0, 1, 2), unit, unit, front_deg=90.0)
    angles, depths, radii = points_of_file(rows, layout)
    assert angles[18] == pytest.approx(0)
    assert (depths[0], radii[0]) == pytest.approx((0.03, 0.05))
    refuse_another_unit(radii, depths, layout, 0.1)
    upwards = ScanLayout(ScanKind.POLAR, (0, 1, 2), unit, unit, depth_is_up=True)
    assert points_of_file(rows, upwards)[1][0] == pytest.approx(-0.03)
    other = "mm" if unit != "mm" else "inch"
    wrong = ScanLayout(ScanKind.POLAR, (0, 1, 2), other, unit)
    with pytest.raises(OutOfDomain, match=f"choose {unit}"):
        refuse_another_unit(points_of_file(rows, wrong)[2], depths, wrong, 0.1)


def scanned(shape: float, size: float, off: float = 20e-6) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    turns = np.tile(np.arange(0, 360, 1.0), 2)
    depths = np.repeat([0.02, 0.07], 360)
    radii = 0.05 + size / 2 + shape * np.cos(4 * np.radians(turns)) + 2e-6 * np.cos(3 * np.radians(turns))
    return turns, depths, radii + off * np.cos(np.radians(turns - 40))


def test_a_profile_is_written_and_read_back_to_a_tenth_of_a_nanometre() -> None:
    profile = scan_profile(*scanned(5e-6, 0.0))
    again = read_back(written(profile))
    assert [level.points for level in again.levels] == [360, 360]
    for one, other in zip(profile.levels, again.levels, strict=True):
        assert other.even_m == pytest.approx(one.even_m, abs=1e-10)
        for a, b in zip(one.circles, other.circles, strict=True):
            assert (b.diameter_m, b.roundness_m, b.x_m) == pytest.approx(
                (a.diameter_m, a.roundness_m, a.x_m), abs=1e-10
            )
    assert {one.reference for one in again.cylinders} == set(Reference)
    assert np.ptp(shape_of(again.levels[0], 15)) < np.ptp(shape_of(again.levels[0], None)) + 1e-9
    with pytest.raises(OutOfDomain, match="no profile"):
        read_back("{}")


def test_what_clamping_changes_by_two_scans_is_size_apart_from_shape() -> None:
    scan = SimpleNamespace(load="")
    free = ScanNow(scan, scan_profile(*scanned(1e-6, 0.0)), Held.FREE)  # type: ignore[arg-type]
    clamped = ScanNow(scan, scan_profile(*scanned(6e-6, -8e-6, -35e-6)), Held.CLAMPED)  # type: ignore[arg-type]
    change = change_of_scans(clamped, free)
    assert change is not None
    for _, found in change.levels:
        lobes = {one.order: one.amplitude_m for one in found.lobes}
        assert found.size_m == pytest.approx(-8e-6, abs=5e-8)
        assert lobes[4] == pytest.approx(5e-6, abs=5e-8)
        assert lobes[3] < 1e-7
    assert change.field.at(0.02).mean() == pytest.approx(-4e-6, abs=5e-8)
    turns, depths, radii = scanned(1e-6, 0.0)
    apart = ScanNow(scan, scan_profile(turns, depths + 2 * SAME_LEVEL_M, radii), Held.FREE)  # type: ignore[arg-type]
    assert change_of_scans(clamped, apart) is None
    field = field_of_scan(free.profile, 0.1, None)
    assert field.depths_m[0] == pytest.approx(0.02)
    assert field.depths_m[-1] == pytest.approx(0.07)


@pytest.mark.parametrize(
    ("turns", "depths", "words"),
    [(np.arange(0, 360, 60.0), np.zeros(6), "fewer than eight"), (np.arange(700.0), np.arange(700.0) * 1e-3, "depths")],
)
def test_a_table_that_is_no_scan_is_refused(turns: np.ndarray, depths: np.ndarray, words: str) -> None:
    with pytest.raises(OutOfDomain, match=words):
        scan_profile(turns, depths, np.full(len(turns), 0.05))


def test_levels_with_exact_readings_have_exact_weights() -> None:
    level = FieldLevel(0.02, tuple(exactly(50e-6) for _ in range(8)), clock_weights([at * 45.0 for at in range(8)]))
    assert clock_lobes(ANGLES) @ level.weights @ np.full(8, 50e-6) == pytest.approx(50e-6, abs=1e-15)
