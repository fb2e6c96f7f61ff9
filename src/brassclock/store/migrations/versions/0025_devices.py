"""Who may ask: the passcode and devices. What instruments measure. Who made a tap."""

import sqlalchemy as sa
from alembic import op

revision = "0025"
down_revision = "0024"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "passcode",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("hash", sa.TEXT(), nullable=False),
        sa.Column("made_at", sa.TEXT(), nullable=False),
        sqlite_strict=True,
    )
    op.create_table(
        "device",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kind", sa.TEXT(), nullable=False),
        sa.Column("name", sa.TEXT(), nullable=False),
        sa.Column("secret", sa.TEXT(), nullable=False),
        sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=True),
        sa.Column("made_at", sa.TEXT(), nullable=False),
        sa.Column("seen_at", sa.TEXT(), nullable=True),
        sa.Column("until", sa.TEXT(), nullable=True),
        sa.Column("forgotten_at", sa.TEXT(), nullable=True),
        sa.UniqueConstraint("secret"),
        sqlite_strict=True,
    )
    op.create_index("ix_device_kitchen_id", "device", ["kitchen_id"])
    op.create_table(
        "channel",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("device_id", sa.Integer(), sa.ForeignKey("device.id", ondelete="CASCADE"), nullable=False),
        sa.Column("name", sa.TEXT(), nullable=False),
        sa.Column("quantity", sa.TEXT(), nullable=False),
        sa.Column("use", sa.TEXT(), nullable=True),
        sa.Column("place", sa.TEXT(), nullable=True),
        sa.Column("bake_id", sa.Integer(), sa.ForeignKey("bake.id", ondelete="SET NULL"), nullable=True),
        sa.Column("surface_id", sa.Integer(), sa.ForeignKey("surface.id", ondelete="SET NULL"), nullable=True),
        sa.Column("used_since", sa.TEXT(), nullable=True),
        sa.Column("doubt", sa.TEXT(), nullable=True),
        sa.Column("doubt_since", sa.TEXT(), nullable=True),
        sa.UniqueConstraint("device_id", "name"),
        sqlite_strict=True,
    )
    op.create_index("ix_channel_device_id", "channel", ["device_id"])
    op.create_table(
        "measurement",
        sa.Column("channel_id", sa.Integer(), sa.ForeignKey("channel.id", ondelete="CASCADE"), nullable=False),
        sa.Column("at", sa.TEXT(), nullable=False),
        sa.Column("value", sa.REAL(), nullable=False),
        sa.Column("received_at", sa.TEXT(), nullable=False),
        sa.PrimaryKeyConstraint("channel_id", "at"),
        sqlite_strict=True,
    )
    op.add_column("tap", sa.Column("by", sa.TEXT(), nullable=True))
    op.add_column("reading", sa.Column("channel_id", sa.Integer(), nullable=True))
    op.create_index("ix_reading_channel_id", "reading", ["channel_id"])


def downgrade() -> None:
    op.drop_index("ix_reading_channel_id", "reading")
    op.drop_column("reading", "channel_id")
    op.drop_column("tap", "by")
    for table in ("measurement", "channel", "device", "passcode"):
        op.drop_table(table)
