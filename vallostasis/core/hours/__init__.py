"""Hours: planned from the shop's own log, worked, waited, and what of them is on the bill."""
