"""What people type and say: lengths in the units of the trade, numbers, entry lines."""
