"""Every kind of fact, the tape they stand on, and what Undo takes back."""
