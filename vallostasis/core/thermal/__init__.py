"""Heat: how parts expand, and how long they soak."""
