"""The demo kitchen's instruments: what the stand-in is told to look like, and what its pyrometer looks at."""

from __future__ import annotations

from brassclock.services.access.devices import renewed
from brassclock.services.app import App
from brassclock.services.pages.bench import bench_out
from brassclock.store import instruments as rows
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.rows import find, insert
from brassclock.store.tables import Channel, Device

NAME = "Stand-in instruments"
PYROMETER = "plate"
DOUGH_C = 24.0  # where none rises


def prepared(app: App) -> tuple[str, list[str]] | None:
    """(token, options of `brass-clock simulate`) for the demo's instruments; None where there is no demo kitchen."""
    with app.read() as session:
        kitchen = kitchen_rows.demo_kitchen(session)
    if kitchen is None or kitchen.id is None:
        return None
    token = renewed(app, NAME, kitchen.id)
    with app.transaction(kitchen.id) as session:
        surfaces = [s for s in kitchen_rows.surfaces(session, kitchen.id) if s.kind == "iron_plate"]
        device = next(iter(find(session, Device, kitchen_id=kitchen.id, name=NAME, forgotten_at=None)))
        if surfaces and PYROMETER not in rows.channels_of(session, device.id or 0):
            made = Channel(device_id=device.id or 0, name=PYROMETER, quantity="temp", use="surface")
            made.surface_id, made.used_since = surfaces[0].id, app.now(session, kitchen)
            insert(session, made)
    rising = [b.dough_c for b in bench_out(app, kitchen.id).bakes if b.status == "live" and b.dough_c is not None]
    told = {
        "--room": ",".join(f"{c:g}" for c in kitchen.hourly_c),
        "--fridge": f"{kitchen.fridge_c:g}",
        "--dough": f"{rising[0] if rising else DOUGH_C:.1f}",
        "--plate": f"{surfaces[0].temp_c if surfaces else 250.0:g}",
    }
    return token, [word for pair in told.items() for word in pair]
