"""Honing round by round: what stones take, when to stop and measure, how far they run out, when a bore is done."""
