"""Bakes that are known again in another copy of their kitchen, and packages that were brought in."""

import sqlalchemy as sa
from alembic import op

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("bake", sa.Column("uid", sa.String(), nullable=False, server_default=""))
    op.execute("update bake set uid = lower(hex(randomblob(16)))")
    op.create_index("ix_bake_uid", "bake", ["uid"])
    op.create_table(
        "brought",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False),
        sa.Column("at", sa.TEXT(), nullable=False),
        sa.Column("added", sa.TEXT(), nullable=False),
        sa.Column("undone_at", sa.TEXT(), nullable=True),
        sqlite_strict=True,
    )
    op.create_index("ix_brought_kitchen_id", "brought", ["kitchen_id"])


def downgrade() -> None:
    op.drop_table("brought")
    op.drop_index("ix_bake_uid", "bake")
    op.drop_column("bake", "uid")
