"""A file that cannot be read, whatever it was meant to be."""


class NotRead(Exception):
    """The file was not read; the text says why, and what to do."""
