"""Readings: where they stand, how far they can be trusted, what they decide."""
