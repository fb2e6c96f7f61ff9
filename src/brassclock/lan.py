"""Addresses and names of this machine in the kitchen's network."""

from __future__ import annotations

import ipaddress
import socket

LOOPBACK = ("127.0.0.1", "localhost", "[::1]")


def addresses() -> list[str]:
    """IPv4 addresses by which other devices reach this machine; none where it is in no network."""
    import ifaddr

    found = [str(ip.ip) for adapter in ifaddr.get_adapters() for ip in adapter.ips if ip.is_IPv4]
    return [a for a in found if not ipaddress.ip_address(a).is_loopback]


def names() -> frozenset[str]:
    """Host names that a browser of the network may use: this machine's own, with and without .local, and its
    addresses."""
    own = socket.gethostname().lower().split(".")[0]
    return frozenset({*LOOPBACK, own, f"{own}.local", *addresses()})


def is_loopback(address: str) -> bool:
    """True if what listens there is reached from this machine alone."""
    if address == "localhost":
        return True
    try:
        return ipaddress.ip_address(address.strip("[]")).is_loopback
    except ValueError:
        return False
