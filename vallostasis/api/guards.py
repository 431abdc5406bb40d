"""What holds for every request: it comes from our own pages, has a bound on its size, and stays at home."""

import asyncio
import ipaddress
import socket
import time

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from vallostasis.api.errors import error_response

CONTENT_SECURITY_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; "
    "connect-src 'self'; frame-src 'self'; manifest-src 'self'; form-action 'none'; base-uri 'none'; "
    "frame-ancestors 'self'"
)
# The proof is one page with style and fonts inside, so that it can be saved and printed as it is.
PROOF_POLICY = "default-src 'none'; style-src 'unsafe-inline'; font-src data:; frame-ancestors 'self'"


class SecurityHeaders:
    """Adds the same headers to every answer."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on and add headers to its answer."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        policy = PROOF_POLICY if scope["path"].endswith("/proof.html") else CONTENT_SECURITY_POLICY

        async def send_with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [
                    *message.get("headers", []),
                    (b"content-security-policy", policy.encode()),
                    (b"x-content-type-options", b"nosniff"),
                    (b"referrer-policy", b"no-referrer"),
                    (b"cross-origin-opener-policy", b"same-origin"),
                    *self._not_kept(scope, message),
                ]
            await send(message)

        await self.app(scope, receive, send_with_headers)

    @staticmethod
    def _not_kept(scope: Scope, message: Message) -> tuple[tuple[bytes, bytes], ...]:
        """What belongs to a job stands in no store of a browser or a proxy, but for what says so itself."""
        says_so = any(name.lower() == b"cache-control" for name, _ in message.get("headers", []))
        return () if says_so or not scope["path"].startswith("/api") else ((b"cache-control", b"no-store"),)


NO_PROXY = "This came through a proxy that the owner has not named: set VALLO_PROXY_NAME to its name and start again."


class OwnPagesOnly:
    """Refuses what another site makes a browser send: a foreign name for us, or a page that is not ours.

    A name can be made to point at this machine, a numeric address cannot; so addresses pass, and of names
    only those that are this machine's own.
    """

    def __init__(self, app: ASGIApp, host: str, proxy_name: str = "") -> None:
        self.app = app
        self.has_proxy = proxy_name != ""
        own = socket.gethostname().casefold()
        self.names = {"localhost", host.casefold(), own, f"{own}.local", proxy_name.partition(":")[0].casefold()} - {""}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on, or answer 403."""
        if scope["type"] == "http":
            headers = {name: value.decode("latin-1") for name, value in scope["headers"]}
            if not self.has_proxy and (b"x-forwarded-for" in headers or b"forwarded" in headers):
                # Through a proxy everybody would seem to be this machine itself.
                await error_response(403, "wrong", NO_PROXY)(scope, receive, send)
                return
            host = headers.get(b"host", "")
            origin = headers.get(b"origin")
            ours = self._is_own(host) and (origin is None or origin.partition("://")[2] == host)
            if not ours:
                await error_response(403, "wrong", "Open the application at its own address.")(scope, receive, send)
                return
        await self.app(scope, receive, send)

    def _is_own(self, host: str) -> bool:
        name = host.rsplit(":", 1)[0] if not host.endswith("]") else host
        try:
            ipaddress.ip_address(name.strip("[]"))
        except ValueError:
            return name.casefold() in self.names
        return True


class BodyLimit:
    """Refuses a request body that is larger than anything this application asks for.

    Addresses that end as ``larger`` says take files, with a bound of their own; a little is left for the form around.
    """

    FORM_BYTES = 30_000

    # So long a body may take to come, and as much more as it is large at the slowest link of a shop.
    WITHIN_S = 20.0
    SLOWEST_BYTES_PER_S = 20_000

    def __init__(self, app: ASGIApp, largest: int, larger: dict[str, int]) -> None:
        self.app = app
        self.largest = largest
        self.larger = larger

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Read the body up to the bound, then pass it on, or answer 413."""
        if scope["type"] != "http" or scope["method"] in ("GET", "HEAD", "OPTIONS"):
            await self.app(scope, receive, send)
            return
        files = next((most for end, most in self.larger.items() if scope["path"].endswith(end)), None)
        most = self.largest if files is None else files + self.FORM_BYTES
        body = bytearray()
        more = True
        began = time.monotonic()
        while more:
            left_s = began + self.WITHIN_S + len(body) / self.SLOWEST_BYTES_PER_S - time.monotonic()
            try:
                message = await asyncio.wait_for(receive(), max(left_s, 0.0))
            except TimeoutError:
                words = "The request took too long to come: try again on a better link."
                await error_response(408, "too slow", words)(scope, receive, send)
                return
            if message["type"] != "http.request":
                return
            body += message.get("body", b"")
            more = message.get("more_body", False)
            if len(body) > most:
                words = (
                    f"The request is larger than {self.largest // 1000} kB: shorten the text in it."
                    if files is None
                    else f"The file is larger than {files // 1_000_000} MB: split it, or make it smaller."
                )
                refusal = error_response(413, "too large", words, [] if files is None else [("file", words)])
                await refusal(scope, receive, send)
                return
        whole: list[Message] = [{"type": "http.request", "body": bytes(body), "more_body": False}]

        async def replay() -> Message:
            return whole.pop() if whole else await receive()

        await self.app(scope, replay, send)
