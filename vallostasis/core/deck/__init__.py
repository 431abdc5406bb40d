"""The deck: how much a surfacer takes for each aim, what is left of every height, and what the engine displaces."""
