"""Columns for a kitchen's own cup and spoons [mL]."""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for unit in ("cup", "tbsp", "tsp"):
        op.add_column("kitchen", sa.Column(f"{unit}_ml", sa.Float(), nullable=True))


def downgrade() -> None:
    for unit in ("cup", "tbsp", "tsp"):
        op.drop_column("kitchen", f"{unit}_ml")
