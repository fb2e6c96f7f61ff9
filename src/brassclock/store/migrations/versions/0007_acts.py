"""Acts that change several bakes at once, with what was before, so that one press takes them back."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "act",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("what", sa.String(), nullable=False),
        sa.Column("before", sa.JSON(), nullable=False),
        sa.Column("busy", sa.JSON(), nullable=False),
        sa.Column("undone_at", sa.String(), nullable=True),
        sqlite_strict=True,
    )


def downgrade() -> None:
    op.drop_table("act")
