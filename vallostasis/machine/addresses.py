"""Where this machine listens, and at which addresses other machines of the shop reach it."""

import contextlib
import errno
import ipaddress
import socket

from vallostasis.machine.packages import say
from vallostasis.machine.postgres import MachineError

LOOPBACK = "127.0.0.1"
# Reserved for documentation: choosing a route to it tells the own address without sending anything.
NOWHERE = ("192.0.2.1", 9)


def listen(host: str, port: int) -> list[socket.socket]:
    """Open the port at an address and at loopback, so that the machine itself is always served."""
    hosts = [LOOPBACK] if host in (LOOPBACK, "localhost") else [host]
    if not _is_every_address(host) and LOOPBACK not in hosts:
        hosts.append(LOOPBACK)
    return [_bound(one, port) for one in hosts]


def _bound(host: str, port: int) -> socket.socket:
    try:
        family, kind, _, _, place = socket.getaddrinfo(host.strip("[]"), port, type=socket.SOCK_STREAM)[0]
        opened = socket.socket(family, kind)
        opened.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        opened.bind(place)
    except OSError as error:
        if error.errno == errno.EADDRINUSE:
            raise MachineError(f"Port {port} is taken: stop what uses it, or choose another with --port.") from None
        raise MachineError(f"{host} is no address of this machine: --host 0.0.0.0 serves at all of them.") from None
    return opened


def free_from(port: int, count: int) -> int:
    """Return a port on loopback from which so many are free for the demo's devices: the one wanted if it can be."""
    for tried in range(port, port + 20 * count, count):
        if all(_is_free(one) for one in range(tried, tried + count)):
            if tried != port:
                say(f"a port from {port} on is taken: the demo's devices talk from {tried} on")
            return tried
    raise MachineError(f"Ports from {port} on are taken: choose others with --gauge-port.")


def _is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((LOOPBACK, port))
        except (OSError, OverflowError):
            return False
    return True


def reached_at(host: str, port: int, scheme: str = "http") -> list[str]:
    """Addresses for a browser on another device: the one served at, or every one of this machine when all are."""
    return [f"{scheme}://{f'[{one}]' if ':' in one and '[' not in one else one}:{port}" for one in hosts_at(host)]


def hosts_at(host: str) -> list[str]:
    """The address served at, or every one of this machine when all are."""
    return _own_addresses() if _is_every_address(host) else [host]


def _is_every_address(host: str) -> bool:
    with contextlib.suppress(ValueError):
        return ipaddress.ip_address(host.strip("[]")).is_unspecified
    return False


def _own_addresses() -> list[str]:
    found: dict[str, None] = {}
    with contextlib.suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.connect(NOWHERE)
        found[str(probe.getsockname()[0])] = None
    with contextlib.suppress(OSError):
        for entry in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET):
            found[str(entry[4][0])] = None
    return [address for address in found if not ipaddress.ip_address(address).is_loopback] or [socket.gethostname()]
