"""Columns for a surface's heat source and how bread meets it."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None

ADDED = (
    sa.Column("heat", sa.String(), nullable=True),
    sa.Column("greased", sa.String(), nullable=False, server_default="dry"),
    sa.Column("nonstick", sa.Integer(), nullable=False, server_default="0"),
)


def upgrade() -> None:
    for column in ADDED:
        op.add_column("surface", column)


def downgrade() -> None:
    for column in reversed(ADDED):
        op.drop_column("surface", column.name)
