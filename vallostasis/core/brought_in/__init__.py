"""Jobs that come from files: held to what may be typed here, and to themselves."""
