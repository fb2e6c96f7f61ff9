"""A leaven that taught nothing yet is believed with a wider spread (eight timed rises gave .51). What says how hot a surface is and how sure that is; a bake's own steps on the heat, the colour of its upper face, its dressing."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("surface", sa.Column("source", sa.String(), nullable=False, server_default="typed"))
    op.add_column("surface", sa.Column("sd_k", sa.Float(), nullable=True))
    op.add_column("surface", sa.Column("size", sa.String(), nullable=False, server_default="home"))
    op.add_column("bake", sa.Column("colour_top", sa.String(), nullable=True))
    op.add_column("bake", sa.Column("heat_steps", sa.JSON(), nullable=True))
    op.add_column("bake", sa.Column("dressing", sa.JSON(), nullable=True))
    op.get_bind().exec_driver_sql("update kitchen set activity_sd_log = 0.5 where activity_sd_log = 0.36")
