"""A hearth frozen at the first load, rows of ended bakes for lists, versions, and answers kept by their key."""

import json
import math

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

SURFACE = ("id", "name", "kind", "temp_c", "power", "spots", "heat", "greased", "nonstick")
USUAL = {"id": None, "name": "Surface", "kind": "iron_plate", "temp_c": 240.0, "power": "medium_high", "spots": 1, "heat": None,
         "greased": "dry", "nonstick": 0}


def upgrade() -> None:
    op.add_column("kitchen", sa.Column("version", sa.Integer(), nullable=False, server_default="0"))
    op.add_column("surface", sa.Column("removed_at", sa.String(), nullable=True))
    op.add_column("bake", sa.Column("hearth", sa.JSON(), nullable=True))
    op.add_column("bake", sa.Column("summary", sa.JSON(), nullable=True))
    op.create_index("ix_bake_kitchen_status", "bake", ["kitchen_id", "status"])
    op.create_table(
        "answered",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("asked", sa.String(), nullable=False),
        sa.Column("status", sa.Integer(), nullable=False),
        sa.Column("body", sa.LargeBinary(), nullable=False),
        sa.Column("at", sa.String(), nullable=False, index=True),
        sqlite_strict=True,
    )
    _freeze_hearths()


def _freeze_hearths() -> None:
    """Bakes that were on the heat get the surface, spots and count they had; what is gone is read from their taps."""
    connection = op.get_bind()
    taps = connection.exec_driver_sql(
        "select bake_id, max(round_no), max(spot) from tap where undone_at is null and kind in ('load', 'turn', 'off', 'fell') "
        "and round_no is not null and spot is not null group by bake_id having sum(kind = 'load') > 0"
    ).fetchall()
    for bake_id, rounds, spot in taps:
        surface_id, count, program, filling, cooks = connection.exec_driver_sql(
            "select b.surface_id, b.count, b.program, b.filling, k.cooks from bake b join kitchen k on k.id = b.kitchen_id "
            "where b.id = ?", (bake_id,)
        ).fetchone()
        row = connection.exec_driver_sql(
            f"select {', '.join(SURFACE)} from surface where id = ?", (surface_id,)
        ).fetchone()
        surface = dict(zip(SURFACE, row, strict=True)) if row else dict(USUAL)
        grilled = _read(program).get("second") == "grill"
        spots = max(surface["spots"] if row else 1, math.ceil(spot / 2) if grilled else spot)
        hearth = {
            "surface": {**surface, "spots": spots, "nonstick": bool(surface["nonstick"])}, "spots": spots,
            "grill": spots if grilled else 0, "count": None if count is None else max(count, rounds), "cooks": cooks,
            "topping": bool(_read(filling).get("topping")),
        }  # fmt: skip
        connection.exec_driver_sql("update bake set hearth = ? where id = ?", (json.dumps(hearth), bake_id))


def _read(text: str | None) -> dict:
    """A JSON object as it was stored; an empty one where there is none."""
    try:
        found = json.loads(text) if text else {}
    except ValueError:
        found = {}
    return found if isinstance(found, dict) else {}


def downgrade() -> None:
    op.drop_table("answered")
    op.drop_index("ix_bake_kitchen_status", "bake")
    for table, column in (("bake", "summary"), ("bake", "hearth"), ("surface", "removed_at"), ("kitchen", "version")):
        op.drop_column(table, column)
