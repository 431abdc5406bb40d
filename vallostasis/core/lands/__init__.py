"""The lands of a make: what many liners read, a running change, a batch that does not add up, old against new."""
