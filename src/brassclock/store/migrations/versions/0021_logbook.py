"""Figures of ended bakes for the Logbook, the index of its search, and bakes that its statistics leave out."""

import sqlalchemy as sa
from alembic import op

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None

TEXTS = "name, notes, causes, holds"
OLD, NEW = (", ".join(f"{row}.{c}" for c in TEXTS.split(", ")) for row in ("old", "new"))
FORGET = f"insert into past_text(past_text, rowid, {TEXTS}) values ('delete', old.bake_id, {OLD})"
TAKE = f"insert into past_text(rowid, {TEXTS}) values (new.bake_id, {NEW})"


def upgrade() -> None:
    op.add_column("bake", sa.Column("left_out", sa.Integer(), nullable=False, server_default="0"))
    real, text, whole = sa.REAL(), sa.TEXT(), sa.Integer()
    op.create_table(
        "past_bake",
        sa.Column("bake_id", whole, sa.ForeignKey("bake.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("kitchen_id", whole, sa.ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False),
        sa.Column("serve_at", text, nullable=False),
        *(sa.Column(c, text, nullable=False) for c in ("status", "name", "method", "bread", "leaven")),
        sa.Column("left_out", whole, nullable=False),
        sa.Column("surface_id", whole, nullable=True),
        sa.Column("surface", text, nullable=True),
        *(sa.Column(c, whole, nullable=False) for c in ("full", "part", "flat", "judged", "short", "lost")),
        *(sa.Column(c, real, nullable=True) for c in ("room_c", "ready_p10", "ready_p50", "ready_p90", "ready")),
        *(sa.Column(c, real, nullable=True) for c in ("hands_min", "flour_g", "cause_share")),
        *(sa.Column(c, text, nullable=True) for c in ("cause", "cause_name", "tried")),
        *(sa.Column(c, text, nullable=False) for c in ("notes", "causes", "holds")),
        sqlite_strict=True,
    )
    op.create_index("ix_past_bake_kitchen_serve", "past_bake", ["kitchen_id", "serve_at"])
    op.execute(
        f"create virtual table past_text using fts5({TEXTS}, content='past_bake', content_rowid='bake_id', "
        "prefix='2 3 4', tokenize='unicode61 remove_diacritics 2')"
    )
    op.execute(f"create trigger past_bake_added after insert on past_bake begin {TAKE}; end")
    op.execute(f"create trigger past_bake_gone after delete on past_bake begin {FORGET}; end")
    op.execute(f"create trigger past_bake_altered after update on past_bake begin {FORGET}; {TAKE}; end")
    op.execute(
        "insert into past_bake (bake_id, kitchen_id, serve_at, status, left_out, name, method, bread, leaven, full, "
        "part, flat, judged, short, lost, notes, causes, holds) select id, kitchen_id, serve_at, status, 0, name, "
        "method, '', 'none', 0, 0, 0, 0, 0, 0, note, '', '' from bake where status != 'live'"
    )


def downgrade() -> None:
    op.drop_table("past_text")
    op.drop_table("past_bake")
    op.drop_column("bake", "left_out")
