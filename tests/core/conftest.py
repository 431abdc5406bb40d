"""Fewer examples of the property tests where every change of a list is tried on them."""

import os

from hypothesis import settings

settings.register_profile("few", max_examples=12, deadline=None)
if os.environ.get("VALLO_FEW_EXAMPLES"):
    settings.load_profile("few")
