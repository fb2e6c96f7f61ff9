"""Outcomes with both faces, tenderness and faults; facts noted of a bake and the change it carries; lessons.

What was believed until now becomes one lesson each, so weighed that the fold gives the same belief.
"""

import json
import math

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("outcome", sa.Column("colour_top", sa.String(), nullable=True))
    op.add_column("outcome", sa.Column("tender", sa.String(), nullable=True))
    op.add_column("outcome", sa.Column("faults", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("outcome", sa.Column("note", sa.String(), nullable=False, server_default=""))
    op.add_column("bake", sa.Column("noted", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("bake", sa.Column("carried", sa.JSON(), nullable=True))
    op.create_table(
        "lesson",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False),
        sa.Column("bake_id", sa.Integer(), sa.ForeignKey("bake.id", ondelete="CASCADE"), nullable=True),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("seen", sa.Float(), nullable=False),
        sa.Column("spread", sa.Float(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("refused", sa.Boolean(), nullable=False),
        sa.Column("sure", sa.Boolean(), nullable=False),
        sa.UniqueConstraint("bake_id", "key"),
        sqlite_strict=True,
    )
    op.create_index("ix_lesson_kitchen_id", "lesson", ["kitchen_id"])
    op.create_index("ix_lesson_bake_id", "lesson", ["bake_id"])
    _believed()
    op.get_bind().exec_driver_sql("delete from said where name in ('activity', 'friction', 'bag')")
    op.drop_column("said", "before")
    op.drop_column("feed", "before_mean")
    op.drop_column("feed", "before_sd_log")


BATCH_SD, WIDE_SD = 0.20, {"friction": 0.35, "thirst": 0.02, "vitality": 0.30}
FRICTION_SD, THIRST_SD = 0.18, 0.012  # of one lesson


def _believed() -> None:
    run = op.get_bind().exec_driver_sql
    for kitchen, made, leavens, friction, mean, sd in run(
        "select id, created_at, leavens, friction, activity_mean, activity_sd_log from kitchen"
    ).fetchall():
        wide = math.sqrt(max(sd * sd - BATCH_SD**2, 1e-4))
        for leaven, known in json.loads(leavens or "{}").items():
            was = known.get("was") or known
            narrow = math.sqrt(max(was["sd_log"] ** 2 - BATCH_SD**2, 1e-4))
            _lesson(kitchen, made, f"activity:{leaven}", was["mean"], narrow, mean, wide, refused="was" in known)
        for way, (factor, times) in json.loads(friction or "{}").items():
            narrow = math.sqrt(1 / (1 / WIDE_SD["friction"] ** 2 + times / FRICTION_SD**2))
            _lesson(kitchen, made, f"friction:{way}", factor, narrow, 1.0, WIDE_SD["friction"])
        for bag, frac, times in run(
            "select id, thirst_frac, times from flour_bag where kitchen_id = ? and times > 0", (kitchen,)
        ).fetchall():
            narrow = math.sqrt(1 / (1 / WIDE_SD["thirst"] ** 2 + times / THIRST_SD**2))
            _lesson(kitchen, made, f"thirst:{bag}", 1 + frac, narrow, 1.0, WIDE_SD["thirst"])
        for starter, v, narrow in run(
            "select id, vitality_mean, vitality_sd_log from starter where kitchen_id = ?", (kitchen,)
        ).fetchall():
            _lesson(kitchen, made, f"vitality:{starter}", v, narrow, 1.0, WIDE_SD["vitality"])


def _lesson(
    kitchen: int, at: str, key: str, mean: float, narrow: float, start: float, wide: float, refused: bool = False
) -> None:
    gain = 1 - (narrow / wide) ** 2
    if gain < 0.02:
        return
    seen = start * (mean / start) ** (1 / gain)
    spread = wide * math.sqrt((1 - gain) / gain)
    op.get_bind().exec_driver_sql(
        "insert into lesson (kitchen_id, key, seen, spread, at, refused, sure) values (?, ?, ?, ?, ?, ?, 1)",
        (kitchen, key, min(max(seen, 1e-3), 1e3), spread, at, int(refused)),
    )


def downgrade() -> None:
    op.add_column("said", sa.Column("before", sa.JSON(), nullable=True))
    op.add_column("feed", sa.Column("before_mean", sa.Float(), nullable=True))
    op.add_column("feed", sa.Column("before_sd_log", sa.Float(), nullable=True))
    op.drop_table("lesson")
    op.drop_column("bake", "carried")
    op.drop_column("bake", "noted")
    for name in ("note", "faults", "tender", "colour_top"):
        op.drop_column("outcome", name)
