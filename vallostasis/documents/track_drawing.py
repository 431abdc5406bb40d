"""The limit track of one hole as SVG for the proof: two circles for the limits, readings at their clock."""

from dataclasses import dataclass
from math import cos, radians, sin

from vallostasis.core.notation.lengths import format_length
from vallostasis.core.shapes.clock import angle_of_hour
from vallostasis.core.uncertainty.decision import State

SIZE = 120.0
CENTRE = SIZE / 2
LEAST_RADIUS = 26.0
GREATEST_RADIUS = 44.0
INNERMOST, OUTERMOST = 16.0, 54.0
# Half of a window where the card sets no limit at all.
OPEN_WINDOW_M = 1e-4
INK = {State.IN: "#1c6b4f", State.OUT: "#b3261e", State.CANNOT_TELL: "#8a5a00"}


@dataclass(frozen=True, slots=True)
class TrackMark:
    """A reading on the track: clock position [h], value [m], what it decides."""

    hour: float
    value_m: float
    state: State


def track_radius(value_m: float, least_m: float, greatest_m: float) -> tuple[float, bool]:
    """Place a value on the track: its radius, and whether it is held at the rim because it lies beyond."""
    radius = LEAST_RADIUS + (value_m - least_m) / (greatest_m - least_m) * (GREATEST_RADIUS - LEAST_RADIUS)
    held = min(max(radius, INNERMOST), OUTERMOST)
    return held, held != radius


def track_svg(label: str, marks: tuple[TrackMark, ...], least_m: float | None, greatest_m: float | None) -> str:
    """Draw one hole's track, a circle for each limit there is; 9 h, the front, is to the left."""
    circles = ""
    if greatest_m is not None:
        circles += f'<circle cx="{CENTRE}" cy="{CENTRE}" r="{GREATEST_RADIUS}" fill="none" stroke="#17233b"/>'
    if least_m is not None:
        circles += (
            f'<circle cx="{CENTRE}" cy="{CENTRE}" r="{LEAST_RADIUS}" fill="none" stroke="#17233b" '
            'stroke-dasharray="3 2"/>'
        )
    text = f'<text x="{CENTRE}" y="{CENTRE + 5}" text-anchor="middle" font-size="16" font-weight="700">{label}</text>'
    low, high = _window(marks, least_m, greatest_m)
    drawn = "".join(_mark(mark, low, high) for mark in marks)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {SIZE:g} {SIZE:g}" width="{SIZE:g}" height="{SIZE:g}" '
        f'role="img" aria-label="limit track of hole {label}">{circles}{text}{drawn}</svg>'
    )


def _window(marks: tuple[TrackMark, ...], least_m: float | None, greatest_m: float | None) -> tuple[float, float]:
    """Limits of the card, or a scale of their own size where one or both are not set. [m]"""
    if least_m is not None and greatest_m is not None:
        return least_m, greatest_m
    if least_m is not None:
        return least_m, least_m + (abs(least_m) or OPEN_WINDOW_M)
    if greatest_m is not None:
        return greatest_m - (abs(greatest_m) or OPEN_WINDOW_M), greatest_m
    middle = marks[0].value_m if marks else 0.0
    return middle - OPEN_WINDOW_M, middle + OPEN_WINDOW_M


def _mark(mark: TrackMark, least_m: float, greatest_m: float) -> str:
    radius, held = track_radius(mark.value_m, least_m, greatest_m)
    # Clockwise from the front, which lies to the left: x = −r·cos θ, y = −r·sin θ on a page with y downwards.
    angle = radians(angle_of_hour(mark.hour))
    x, y = CENTRE - radius * cos(angle), CENTRE - radius * sin(angle)
    ink = INK.get(mark.state, "#17233b")
    title = f"<title>{mark.hour:g}h {format_length(mark.value_m, 'µm')} µm {mark.state.value}</title>"
    if mark.state is State.OUT:
        corners = f"{x:.1f},{y - 5:.1f} {x + 5:.1f},{y:.1f} {x:.1f},{y + 5:.1f} {x - 5:.1f},{y:.1f}"
        body = f'<polygon points="{corners}" fill="{ink}">{title}</polygon>'
    elif mark.state is State.CANNOT_TELL:
        body = f'<circle cx="{x:.1f}" cy="{y:.1f}" r="4" fill="#fff" stroke="{ink}" stroke-width="2">{title}</circle>'
    else:
        body = f'<circle cx="{x:.1f}" cy="{y:.1f}" r="4" fill="{ink}">{title}</circle>'
    if held:
        body += (f'<text x="{x:.1f}" y="{y + 13:.1f}" text-anchor="middle" font-size="8" fill="{ink}">'
                 f"{format_length(mark.value_m, 'µm')}</text>")  # fmt: skip
    return body
