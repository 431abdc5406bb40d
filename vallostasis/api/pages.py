"""The built front end: its files, and its one page for every address of a view."""

from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles

from vallostasis.api.errors import error_response

# File names carry a hash of their content, so a browser may keep them for good.
KEEP_FOR_GOOD = "public, max-age=31536000, immutable"
# The worker keeps the pages for a reload while the application is out of reach.
ROOT_FILES = ("icon.svg", "sw.js", "manifest.webmanifest")


class _HashedFiles(StaticFiles):
    """Files that never change under their name."""

    def file_response(self, *args: object, **kwargs: object) -> Response:
        response = super().file_response(*args, **kwargs)  # type: ignore[arg-type]
        response.headers["cache-control"] = KEEP_FOR_GOOD
        return response


def mount_assets(app: FastAPI, folder: Path) -> None:
    """Serve what the pages are made of: before the endpoints, since addresses are tried in their order."""
    app.mount("/assets", _HashedFiles(directory=folder / "assets", check_dir=False), name="assets")


def mount_pages(app: FastAPI, folder: Path) -> None:
    """Serve the front end from a folder; addresses of views all lead to its one page."""

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str, request: Request) -> Response:
        """Return a file of the front end, or its page."""
        if path.startswith("api/") or path in ("api", "docs", "redoc"):
            return error_response(404, "not found", f"There is nothing at {request.url.path}.")
        if path in ROOT_FILES and (folder / path).is_file():
            return FileResponse(folder / path, headers={"cache-control": "no-cache"})
        index = folder / "index.html"
        if not index.is_file():
            return JSONResponse({"message": "The front end is not built yet: run ./vallo demo."}, status_code=503)
        return FileResponse(index, headers={"cache-control": "no-cache"})
