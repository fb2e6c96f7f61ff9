"""Frozen breads lie apart or not; tables that are served from the freezer."""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("frozen_bread", sa.Column("divided", sa.Boolean(), nullable=False, server_default="1"))
    op.create_table(
        "serving",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False),
        sa.Column("serve_at", sa.String(), nullable=False),
        sa.Column("wanted", sa.Integer(), nullable=False),
        sa.Column("moves", sa.JSON(), nullable=False),
        sa.Column("cancelled_at", sa.String(), nullable=True),
        sqlite_strict=True,
    )
    op.create_index("ix_serving_kitchen_id", "serving", ["kitchen_id"])


def downgrade() -> None:
    op.drop_table("serving")
    op.drop_column("frozen_bread", "divided")
