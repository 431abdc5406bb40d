"""Heat and cold: which temperatures let a liner drop, and how long that lasts."""
