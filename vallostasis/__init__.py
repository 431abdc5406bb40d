"""Vallostasis: liners, counterbores and protrusion, measured, decided and proved hole by hole."""

__version__ = "0.1.0"
