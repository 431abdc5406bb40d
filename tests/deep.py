"""What an ordinary run leaves to ./vallo test --deep: longer draws, more examples, what another test shows in short."""

import os

DEEP = bool(os.environ.get("VALLO_DEEP"))
