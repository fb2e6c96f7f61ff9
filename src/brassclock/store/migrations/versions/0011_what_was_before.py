"""Columns for the belief before a bake taught its kitchen, and for whether the yeast foamed."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

TAUGHT = {"activity": ("mean", "sd_log"), "friction": ("factor", "times"), "bag": ("thirst_frac", "times")}
NO_FOAM_MIN = 99.0


def upgrade() -> None:
    op.add_column("said", sa.Column("before", sa.JSON(), nullable=True))
    op.add_column("bake", sa.Column("bloom_foamed", sa.Boolean(), nullable=True))
    run = op.get_bind().exec_driver_sql
    for name, (first, second) in TAUGHT.items():
        run(
            "update said set before = json_object(?, p10, ?, p90), p10 = null, p90 = null where name = ?",
            (first, second, name),
        )
    run("update bake set bloom_foamed = activity_factor is not null where bloom_min is not null")
    run("update bake set bloom_min = null where bloom_min = ? and bloom_foamed = 0", (NO_FOAM_MIN,))


def downgrade() -> None:
    run = op.get_bind().exec_driver_sql
    run("update bake set bloom_min = ? where bloom_foamed = 0", (NO_FOAM_MIN,))
    for name, (first, second) in TAUGHT.items():
        run(
            "update said set p10 = json_extract(before, '$.' || ?), p90 = json_extract(before, '$.' || ?) where name = ?",
            (first, second, name),
        )
    op.drop_column("said", "before")
    op.drop_column("bake", "bloom_foamed")
