"""The rest of a surface between two breads, in the Logbook's figures."""

import sqlalchemy as sa
from alembic import op

revision = "0024"
down_revision = "0023"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("past_bake", sa.Column("rests", sa.REAL(), nullable=True))


def downgrade() -> None:
    op.drop_column("past_bake", "rests")
