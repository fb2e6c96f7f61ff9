"""Own ingredients, own methods, flour bags; what was added, held back and filled; how this kitchen measures and mixes."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

KITCHEN = (
    ("spoons", sa.String(), "us"), ("scale_step_g", sa.Float(), "0.1"), ("powder", sa.String(), "double"), ("friction", sa.JSON(), "{}"),
)
BAKE = (
    ("unread", sa.JSON(), "[]"), ("held", sa.JSON(), "{}"), ("additions", sa.JSON(), "[]"), ("weighed", sa.JSON(), "[]"),
    ("bowl_g", sa.Float(), "500.0"), ("bowl_material", sa.String(), "steel"), ("part_temps", sa.JSON(), "{}"),
)
BAKE_NULL = (
    ("filling", sa.JSON()), ("solve_for", sa.String()), ("bloom_min", sa.Float()), ("activity_factor", sa.Float()),
    ("bulk_h", sa.Float()), ("ball_h", sa.Float()), ("bag_id", sa.Integer()),
)


def _owned(name: str, *columns: sa.Column) -> None:
    op.create_table(
        name,
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("kitchen_id", sa.Integer(), nullable=False),
        *columns,
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchen.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_index(f"ix_{name}_kitchen_id", name, ["kitchen_id"], unique=False)


def upgrade() -> None:
    # columns are added, never a table rebuilt: dropping one would cascade to what belongs to it
    _owned("own_ingredient", sa.Column("name", sa.String(), nullable=False), sa.Column("kind", sa.String(), nullable=False),
           sa.Column("facts", sa.JSON(), nullable=False), sa.Column("deleted_at", sa.String(), nullable=True))
    _owned("own_method", sa.Column("name", sa.String(), nullable=False), sa.Column("facts", sa.JSON(), nullable=False),
           sa.Column("deleted_at", sa.String(), nullable=True))
    _owned("flour_bag", sa.Column("name", sa.String(), nullable=False), sa.Column("ingredient", sa.String(), nullable=False),
           sa.Column("thirst_frac", sa.Float(), nullable=False), sa.Column("times", sa.Integer(), nullable=False))
    for name, kind, default in KITCHEN:
        op.add_column("kitchen", sa.Column(name, kind, nullable=False, server_default=default))
    for name, kind, default in BAKE:
        op.add_column("bake", sa.Column(name, kind, nullable=False, server_default=default))
    for name, kind in BAKE_NULL:
        op.add_column("bake", sa.Column(name, kind, nullable=True))


def downgrade() -> None:
    raise RuntimeError("There is no way back from 0002 in place: restore the copy made before it.")
