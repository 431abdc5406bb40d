"""Serving an application: what never ends by itself is ended before the server waits for it."""

import socket

import uvicorn
from fastapi import FastAPI


class Server(uvicorn.Server):
    """A server that ends open streams when it stops."""

    def __init__(self, app: FastAPI, **config: object) -> None:
        super().__init__(uvicorn.Config(app, **config))  # type: ignore[arg-type]
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
