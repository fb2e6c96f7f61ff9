"""The messages of a broker that are readings: `mqtt.toml` beside the data, and a message by it. Pure."""

from __future__ import annotations

import json
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from brassclock.formats.measurements import UNITS

DEFAULT_PORT = 1883
KNOWN = {"host", "port", "username", "password", "tls", "kitchen", "topic"}
TOPIC = {"filter", "channel", "unit", "key"}
EXAMPLE = '[[topic]] filter = "kitchen/+/temperature", channel = "{1}", unit = "C"'


@dataclass(frozen=True)
class Topic:
    """Messages that are readings: a filter with + for one part and # for the rest; the channel's name, in which {0},
    {1}, … are parts of the topic; the unit; and the key of the value where the payload is JSON."""

    filter: str
    channel: str
    unit: str = "C"
    key: str = "value"

    def matches(self, topic: str) -> bool:
        """True if a topic is meant.

        >>> Topic("a/+/c", "x").matches("a/b/c"), Topic("a/#", "x").matches("a/b/c"), Topic("a/+", "x").matches("a/b/c")
        (True, True, False)
        """
        parts, wanted = topic.split("/"), self.filter.split("/")
        for n, want in enumerate(wanted):
            if want == "#":
                return True
            if n >= len(parts) or want not in ("+", parts[n]):
                return False
        return len(parts) == len(wanted)


@dataclass(frozen=True)
class Broker:
    """A broker to listen to, and for which kitchen."""

    host: str
    port: int
    kitchen: int
    topics: tuple[Topic, ...]
    username: str | None = None
    password: str | None = None
    tls: bool = False


def read(text: str) -> Broker:
    """The broker of a `mqtt.toml`. Raises ValueError in words."""
    try:
        given = tomllib.loads(text)
    except tomllib.TOMLDecodeError as fault:
        raise ValueError(f"mqtt.toml cannot be read: {fault}.") from None
    wrong = sorted(set(given) - KNOWN)
    if wrong:
        raise ValueError(f"mqtt.toml: “{wrong[0]}” is not known. Known are {', '.join(sorted(KNOWN))}.")
    if not isinstance(given.get("host"), str) or not isinstance(given.get("kitchen"), int):
        raise ValueError("mqtt.toml: give host (text) and kitchen (its number).")
    topics = tuple(_topic(n, t) for n, t in enumerate(given.get("topic", [])))
    if not topics:
        raise ValueError(f"mqtt.toml names no topic. Add one, as {EXAMPLE}.")
    port = given.get("port", DEFAULT_PORT)
    if not isinstance(port, int) or not 1 <= port <= 65535:
        raise ValueError("mqtt.toml: port is a number from 1 to 65535.")
    known = {k: given.get(k) for k in ("username", "password")}
    return Broker(given["host"], port, given["kitchen"], topics, **known, tls=bool(given.get("tls", False)))


def _topic(n: int, given: Mapping[str, Any]) -> Topic:
    where = f"mqtt.toml, topic {n + 1}"
    wrong = sorted(set(given) - TOPIC)
    if wrong or not all(isinstance(v, str) for v in given.values()):
        raise ValueError(f"{where}: it has filter, channel, unit and key, all of them text.")
    if "filter" not in given or "channel" not in given:
        raise ValueError(f"{where}: give filter and channel, as {EXAMPLE}.")
    if given.get("unit", "C").lower() not in UNITS:
        raise ValueError(f"{where}: “{given['unit']}” is no unit known here. Give C, F, K, g, kg, oz or lb.")
    return Topic(**given)


def reading_of(broker: Broker, topic: str, payload: bytes) -> dict[str, Any] | None:
    """A message as a reading; None where no topic is meant, or its payload holds no number.

    >>> broker = Broker("h", 1883, 1, (Topic("k/+/t", "{1}", "F"),))
    >>> reading_of(broker, "k/room/t", b"68.5"), reading_of(broker, "k/room/t", b"{\\"value\\": 70}")
    ({'channel': 'room', 'value': 68.5, 'unit': 'F'}, {'channel': 'room', 'value': 70, 'unit': 'F'})
    >>> reading_of(broker, "k/room/t", b"warm"), reading_of(broker, "other", b"1")
    (None, None)
    """
    meant = next((t for t in broker.topics if t.matches(topic)), None)
    if meant is None:
        return None
    try:
        told = json.loads(payload.decode())
        value = told.get(meant.key) if isinstance(told, dict) else told
        channel = meant.channel.format(*topic.split("/"))
    except (ValueError, RecursionError, IndexError, KeyError):
        return None
    if isinstance(value, bool) or not isinstance(value, int | float):
        return None
    return {"channel": channel, "value": value, "unit": meant.unit}
