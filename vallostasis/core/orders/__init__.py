"""Orders: what is on order, out of the house or on loan, due, in, and measured against what was asked for."""
