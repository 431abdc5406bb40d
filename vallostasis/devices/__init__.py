"""Gauge links: what speaks with gauges, and a simulated one."""
