"""Pictures of bakes; when the Bench asked whether one that is over is to be kept."""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("bake", sa.Column("asked_at", sa.String(), nullable=True))
    op.create_table(
        "photo",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("bake_id", sa.Integer(), sa.ForeignKey("bake.id", ondelete="CASCADE"), nullable=False),
        sa.Column("round_no", sa.Integer(), nullable=True),
        sa.Column("width", sa.Integer(), nullable=False),
        sa.Column("height", sa.Integer(), nullable=False),
        sa.Column("added_at", sa.String(), nullable=False),
        sa.Column("removed_at", sa.String(), nullable=True),
        sqlite_strict=True,
    )
    op.create_index("ix_photo_bake_id", "photo", ["bake_id"])
    op.create_table(
        "photo_bytes",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("photo_id", sa.Integer(), sa.ForeignKey("photo.id", ondelete="CASCADE"), nullable=False),
        sa.Column("body", sa.LargeBinary(), nullable=False),
        sqlite_strict=True,
    )
    op.create_index("ix_photo_bytes_photo_id", "photo_bytes", ["photo_id"])


def downgrade() -> None:
    op.drop_table("photo_bytes")
    op.drop_table("photo")
    op.drop_column("bake", "asked_at")
