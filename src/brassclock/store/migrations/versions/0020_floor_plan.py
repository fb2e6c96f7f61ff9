"""The place of a surface on the floor plan."""

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("surface", sa.Column("lies", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("surface", "lies")
