"""Geometry of what is read: clock positions, planes, bores and how they are out of round."""
