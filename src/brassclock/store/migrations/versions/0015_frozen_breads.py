"""A table for breads in the freezer."""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "frozen_bread",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False),
        sa.Column("bake_id", sa.Integer(), sa.ForeignKey("bake.id", ondelete="SET NULL"), nullable=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("mass_g", sa.Float(), nullable=False),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("frozen_at", sa.String(), nullable=False),
        sa.Column("wrap", sa.String(), nullable=False),
        sa.Column("fat_frac", sa.Float(), nullable=False),
        sa.Column("filled", sa.Boolean(), nullable=False),
        sa.Column("taken", sa.JSON(), nullable=False, server_default="[]"),
        sa.Column("removed_at", sa.String(), nullable=True),
        sqlite_strict=True,
    )
    op.create_index("ix_frozen_bread_kitchen_id", "frozen_bread", ["kitchen_id"])


def downgrade() -> None:
    op.drop_table("frozen_bread")
