"""What leaves the shop: the proof sheet, readings as CSV, the whole job as JSON with its schema."""
