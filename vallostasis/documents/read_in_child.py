"""A program that reads one file by the function that is named, and hands on what it read, or why it did not."""

import importlib
import pickle
import sys

from vallostasis.documents.child import keep_within_bounds
from vallostasis.documents.not_read import NotRead


def main() -> None:
    """Read what comes in, within so many seconds of processor and bytes."""
    keep_within_bounds()
    module, function = sys.argv[3:5]
    read = getattr(importlib.import_module(module), function)
    try:
        answer = read(sys.stdin.buffer.read())
    except NotRead as refusal:
        answer = NotRead(str(refusal))
    pickle.dump(answer, sys.stdout.buffer)


if __name__ == "__main__":
    main()
