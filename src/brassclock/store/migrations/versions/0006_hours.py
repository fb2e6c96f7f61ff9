"""Hours in which hands are away, calendars brought in, pins and service of a bake, and how its plan has changed."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

ADDED = (
    ("kitchen", sa.Column("cooks", sa.Integer(), nullable=False, server_default="1")),
    ("kitchen", sa.Column("shelf_l", sa.Float(), nullable=False, server_default="40")),
    ("bake", sa.Column("serve_until", sa.String(), nullable=True)),
    ("bake", sa.Column("told", sa.JSON(), nullable=False, server_default="{}")),
    ("bake", sa.Column("pins", sa.JSON(), nullable=False, server_default="{}")),
)


def _kitchen() -> sa.Column:
    return sa.Column("kitchen_id", sa.Integer(), sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False, index=True)


def upgrade() -> None:
    for table, column in ADDED:
        op.add_column(table, column)
    op.create_table(
        "busy",
        sa.Column("id", sa.Integer(), primary_key=True),
        _kitchen(),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("hands", sa.Integer(), nullable=True),
        sa.Column("start", sa.String(), nullable=True),
        sa.Column("end", sa.String(), nullable=True),
        sa.Column("days", sa.JSON(), nullable=True),
        sa.Column("from_time", sa.String(), nullable=True),
        sa.Column("until_time", sa.String(), nullable=True),
        sa.Column("deleted_at", sa.String(), nullable=True),
        sqlite_strict=True,
    )
    op.create_table(
        "calendar",
        sa.Column("id", sa.Integer(), primary_key=True),
        _kitchen(),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("hands", sa.Integer(), nullable=True),
        sa.Column("all_day", sa.Integer(), nullable=False),
        sa.Column("known_until", sa.String(), nullable=False),
        sa.Column("deleted_at", sa.String(), nullable=True),
        sqlite_strict=True,
    )
    op.create_table(
        "calendar_hours",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("calendar_id", sa.Integer(), sa.ForeignKey("calendar.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("start", sa.String(), nullable=False, index=True),
        sa.Column("end", sa.String(), nullable=False),
        sqlite_strict=True,
    )
    op.create_table(
        "plan_change",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("bake_id", sa.Integer(), sa.ForeignKey("bake.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("because", sa.String(), nullable=False),
        sa.Column("moves", sa.JSON(), nullable=False),
        sqlite_strict=True,
    )


def downgrade() -> None:
    for table in ("plan_change", "calendar_hours", "calendar", "busy"):
        op.drop_table(table)
    for table, column in reversed(ADDED):
        op.drop_column(table, column.name)
