"""Places of a kitchen, what is believed of each leaven, cold and sponge of a bake, the air that was read."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

ADDED = (
    ("kitchen", sa.Column("places", sa.JSON(), nullable=False, server_default="{}")),
    ("kitchen", sa.Column("leavens", sa.JSON(), nullable=False, server_default="{}")),
    ("bake", sa.Column("bulk_place", sa.String(), nullable=False, server_default="bench")),
    ("bake", sa.Column("ball_place", sa.String(), nullable=False, server_default="bench")),
    ("bake", sa.Column("bulk_air", sa.JSON(), nullable=True)),
    ("bake", sa.Column("ball_air", sa.JSON(), nullable=True)),
    ("bake", sa.Column("cold", sa.JSON(), nullable=True)),
    ("bake", sa.Column("sponge_h", sa.Float(), nullable=True)),
    ("bake", sa.Column("starter_id", sa.Integer(), nullable=True)),
    ("reading", sa.Column("place", sa.String(), nullable=True)),
)


def upgrade() -> None:
    for table, column in ADDED:
        op.add_column(table, column)


def downgrade() -> None:
    for table, column in reversed(ADDED):
        op.drop_column(table, column.name)
