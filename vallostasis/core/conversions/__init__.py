"""Conversions: left proud and decked, inserts, registers in line, relief for the rod, fire ring, seals."""
