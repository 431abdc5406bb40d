"""Cutting the counterbore true and fitting a shim."""
