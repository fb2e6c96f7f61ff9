"""Starters and their feeds."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "starter",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("kitchen_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("hydration_frac", sa.Float(), nullable=False),
        sa.Column("whole_share", sa.Float(), nullable=False),
        sa.Column("vitality_mean", sa.Float(), nullable=False),
        sa.Column("vitality_sd_log", sa.Float(), nullable=False),
        sa.Column("deleted_at", sa.String(), nullable=True),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchen.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_index("ix_starter_kitchen_id", "starter", ["kitchen_id"], unique=False)
    op.create_table(
        "feed",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("starter_id", sa.Integer(), nullable=False),
        sa.Column("seed_g", sa.Float(), nullable=False),
        sa.Column("flour_g", sa.Float(), nullable=False),
        sa.Column("water_g", sa.Float(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("peaked_at", sa.String(), nullable=True),
        sa.Column("before_mean", sa.Float(), nullable=True),
        sa.Column("before_sd_log", sa.Float(), nullable=True),
        sa.Column("undone_at", sa.String(), nullable=True),
        sa.ForeignKeyConstraint(["starter_id"], ["starter.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_index("ix_feed_starter_id", "feed", ["starter_id"], unique=False)


def downgrade() -> None:
    op.drop_table("feed")
    op.drop_table("starter")
