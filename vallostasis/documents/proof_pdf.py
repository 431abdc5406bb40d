"""The proof sheet as PDF; as a program of its own it prints what comes in, within bounds of time and memory."""

import sys

import weasyprint
from weasyprint.urls import URLFetcher, URLFetcherResponse

from vallostasis.documents.child import keep_within_bounds


class _NothingFromOutside(URLFetcher):  # type: ignore[misc]
    """Hands out what the page carries inside itself, and nothing else."""

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        """Return what a data address holds."""
        if not url.startswith("data:"):
            raise ValueError(f"a proof needs nothing from outside, {url} was asked for")
        return super().fetch(url, headers)


def proof_pdf(html: str) -> bytes:
    """Print a proof page as PDF; nothing it needs lies outside the page."""
    return bytes(weasyprint.HTML(string=html, url_fetcher=_NothingFromOutside()).write_pdf())


def main() -> None:
    """Print the page that comes in as the PDF that goes out, within so many seconds of processor and bytes."""
    keep_within_bounds()
    sys.stdout.buffer.write(proof_pdf(sys.stdin.buffer.read().decode()))


if __name__ == "__main__":
    main()
