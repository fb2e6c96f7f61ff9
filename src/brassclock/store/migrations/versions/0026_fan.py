"""Surfaces: a fan that drives their oven's air."""

import sqlalchemy as sa
from alembic import op

revision = "0026"
down_revision = "0025"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("surface", sa.Column("fan", sa.Integer(), nullable=False, server_default="0"))


def downgrade() -> None:
    op.drop_column("surface", "fan")
