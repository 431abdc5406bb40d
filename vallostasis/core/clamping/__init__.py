"""Torque plate and main caps: in which order bolts are turned, and how far they are."""
