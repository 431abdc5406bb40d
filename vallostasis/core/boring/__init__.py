"""Boring and honing: centred on what is not worn, in passes that add up, to the size its own piston asks for."""
