"""Beliefs about a surface's heat and colour and a cook's pace; a bake's evidence for a surface, with its lesson;
when a move was told for, with its tap."""

import sqlalchemy as sa
from alembic import op

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("lesson", sa.Column("shown", sa.JSON(), nullable=True))
    op.add_column("surface", sa.Column("learned", sa.JSON(), nullable=True))
    op.add_column("tap", sa.Column("told_at", sa.String(), nullable=True))
    op.add_column("kitchen", sa.Column("pace", sa.JSON(), nullable=False, server_default="{}"))


def downgrade() -> None:
    op.drop_column("kitchen", "pace")
    op.drop_column("tap", "told_at")
    op.drop_column("surface", "learned")
    op.drop_column("lesson", "shown")
