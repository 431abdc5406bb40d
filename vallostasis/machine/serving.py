"""Serving an application: what never ends by itself is ended before the server waits for it."""

import socket

import uvicorn
from fastapi import FastAPI

from vallostasis.machine.bounded_protocol import BoundedProtocol

# Longer than a bench pauses between two readings: a connection that ends just as it is used again loses the request.
IDLE_CONNECTION_S = 75


class Server(uvicorn.Server):
    """A server that ends open streams when it stops."""

    def __init__(self, app: FastAPI, **config: object) -> None:
        bounded = {
            "http": BoundedProtocol,
            "ws": "none",
            "server_header": False,
            "timeout_keep_alive": IDLE_CONNECTION_S,
            # What a proxy says of where a request came from is believed only where the owner named a proxy.
            "proxy_headers": False,
            **config,
        }
        super().__init__(uvicorn.Config(app, **bounded))  # type: ignore[arg-type]
        self.app = app

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        """End the streams, then stop as usual."""
        self.app.state.feed.close()
        await super().shutdown(sockets=sockets)

    @property
    def port(self) -> int:
        """The port it is served at, also where the system chose it."""
        port: int = self.servers[0].sockets[0].getsockname()[1]
        return port
