"""The TypeScript client against the OpenAPI document: generate it anew, or find that it is stale."""

import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from vallostasis.machine.packages import ROOT, WEB, node_environment

OPENAPI = WEB / "openapi.json"
CLIENT = WEB / "src" / "api" / "generated"


def generate(openapi: Path, client: Path) -> None:
    """Write the OpenAPI document and the client that follows from it."""
    subprocess.run([sys.executable, "-m", "vallostasis.cli", "openapi", str(openapi)], cwd=ROOT, check=True)
    command = ["npx", "openapi-ts", "--input", str(openapi), "--output", str(client), "--silent"]
    subprocess.run(command, cwd=WEB, env=node_environment(), check=True)


def differing_files(first: Path, second: Path) -> list[str]:
    """Names of files that are not the same in both folders."""
    names = {path.relative_to(folder) for folder in (first, second) for path in folder.rglob("*") if path.is_file()}
    return sorted(str(name) for name in names if _text(first / name) != _text(second / name))


def _text(path: Path) -> str | None:
    return path.read_text(encoding="utf-8") if path.exists() else None


def main() -> int:
    """With --write bring the client up to date; without, fail when it is stale."""
    if "--write" in sys.argv:
        generate(OPENAPI, CLIENT)
        return 0
    # Inside web, so that the generator finds its own packages.
    with tempfile.TemporaryDirectory(dir=WEB, prefix=".client-") as folder:
        openapi, client = Path(folder) / "openapi.json", Path(folder) / "generated"
        generate(openapi, client)
        stale = differing_files(client, CLIENT)
        if _text(openapi) != _text(OPENAPI):
            stale.append("openapi.json")
        shutil.rmtree(client)
    if stale:
        print(f"The client is stale ({', '.join(stale)}): run ./vallo client.")
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())
