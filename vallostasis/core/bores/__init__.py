"""Bores: what a survey of diameters says of a wall, and what it cannot see."""
