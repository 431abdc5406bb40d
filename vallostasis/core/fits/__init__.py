"""Fits: interference to come, and how far a liner starts by hand."""
