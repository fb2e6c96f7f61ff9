"""Practice cases and their answers."""

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "drill_try",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False),
        sa.Column("kind", sa.TEXT(), nullable=False),
        sa.Column("level", sa.Integer(), nullable=False),
        sa.Column("seed", sa.Integer(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("own", sa.TEXT(), nullable=True),
        sa.Column("opened_at", sa.TEXT(), nullable=False),
        sa.Column("answered_at", sa.TEXT(), nullable=True),
        sa.Column("answer", sa.TEXT(), nullable=True),
        sa.Column("points", sa.REAL(), nullable=True),
        sa.Column("figures", sa.TEXT(), nullable=True),
        sqlite_strict=True,
    )
    op.create_index("ix_drill_try_kitchen_id", "drill_try", ["kitchen_id"])
    op.create_index("ix_drill_try_kitchen_kind", "drill_try", ["kitchen_id", "kind"])


def downgrade() -> None:
    op.drop_table("drill_try")
