"""Gauges in use: studies, zeros looked at again, circumstances of a reading."""
