"""Readings from a broker (MQTT): what `mqtt.toml` beside the data names is taken in as from any instrument."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

from brassclock.core.errors import InvalidInput
from brassclock.formats.mqtt_topics import Broker, read, reading_of
from brassclock.services.access.devices import gatekeeper, renewed
from brassclock.services.app import App, NotFound
from brassclock.services.instruments.intake import take

FILE = "mqtt.toml"
DEVICE = "Broker"
KEEPALIVE_S = 30
MISSING = "mqtt.toml is there, but the package that reads it is not: pip install 'brassclock[mqtt]'."


def told(words: str) -> None:
    print(words, file=sys.stderr, flush=True)


class Listener:
    """Listens to a broker and takes its readings in. A broker that is gone is tried again, ever more slowly."""

    def __init__(self, app: App, broker: Broker) -> None:
        from paho.mqtt.client import Client
        from paho.mqtt.enums import CallbackAPIVersion

        self.app, self.broker = app, broker
        token = renewed(app, DEVICE, broker.kitchen)
        known = gatekeeper(app).who(app, token)
        assert known is not None
        self.device_id = known.id
        self.client = Client(CallbackAPIVersion.VERSION2)
        if broker.username is not None:
            self.client.username_pw_set(broker.username, broker.password)
        if broker.tls:
            self.client.tls_set()
        self.client.on_connect = self._connected
        self.client.on_message = self._message

    def start(self) -> None:
        """Begin, in a thread of its own."""
        self.client.connect_async(self.broker.host, self.broker.port, KEEPALIVE_S)
        self.client.loop_start()

    def end(self) -> None:
        """Let go of the broker."""
        self.client.disconnect()
        self.client.loop_stop()

    def _connected(self, client: Any, _data: Any, _flags: Any, reason: Any, _properties: Any) -> None:
        if reason.is_failure:
            told(f"The broker {self.broker.host} does not let this kitchen in: {reason}.")
            return
        for topic in self.broker.topics:
            client.subscribe(topic.filter)

    def _message(self, _client: Any, _data: Any, message: Any) -> None:
        self.taken(message.topic, message.payload)

    def taken(self, topic: str, payload: bytes) -> bool:
        """Take a message in; whether it was a reading."""
        reading = reading_of(self.broker, topic, payload)
        if reading is None:
            return False
        try:
            take(self.app, self.device_id, json.dumps(reading).encode(), "application/json")
        except (InvalidInput, NotFound) as fault:
            told(f"A reading of the broker was not taken: {fault}")
            return False
        return True


def listener(app: App, directory: Path) -> Listener | None:
    """The listener that the data's folder asks for; None where it asks for none, or it cannot be had, which is told."""
    path = directory / FILE
    if not path.exists():
        return None
    try:
        return Listener(app, read(path.read_text("utf-8")))
    except ImportError:
        told(MISSING)
    except NotFound as fault:
        told(f"mqtt.toml: {fault} Start again once it is there.")
    except (ValueError, OSError) as fault:
        told(str(fault))
    return None
