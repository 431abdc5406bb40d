"""Bores and what runs in them: what their readings say of each other."""
