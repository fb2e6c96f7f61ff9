"""Stretches of time that a dough spends elsewhere."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("bake", sa.Column("spells", sa.JSON(), nullable=False, server_default="[]"))


def downgrade() -> None:
    op.drop_column("bake", "spells")
