"""Columns for stages that end after a time: what ends bulk and balls, and the most hours of each."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for stage in ("bulk", "ball"):
        op.add_column("bake", sa.Column(f"{stage}_end", sa.String(), nullable=False, server_default="rise"))
        op.add_column("bake", sa.Column(f"{stage}_most_h", sa.Float(), nullable=True))


def downgrade() -> None:
    for stage in ("bulk", "ball"):
        op.drop_column("bake", f"{stage}_end")
        op.drop_column("bake", f"{stage}_most_h")
