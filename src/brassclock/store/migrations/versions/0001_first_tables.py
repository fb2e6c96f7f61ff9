"""first tables"""

import sqlalchemy as sa
from alembic import op

from brassclock.store.columns import Instant

revision = '0001'
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:

    op.create_table('kitchen',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('name', sa.String(), nullable=False),
    sa.Column('demo', sa.Boolean(), nullable=False),
    sa.Column('zone', sa.String(), nullable=False),
    sa.Column('altitude_m', sa.Float(), nullable=False),
    sa.Column('mass_unit', sa.String(), nullable=False),
    sa.Column('temp_unit', sa.String(), nullable=False),
    sa.Column('hourly_c', sa.JSON(), nullable=False),
    sa.Column('fridge_c', sa.Float(), nullable=False),
    sa.Column('tap_c', sa.Float(), nullable=False),
    sa.Column('flour_basis', sa.String(), nullable=True),
    sa.Column('activity_mean', sa.Float(), nullable=False),
    sa.Column('activity_sd_log', sa.Float(), nullable=False),
    sa.Column('created_at', Instant(), nullable=False),
    sa.PrimaryKeyConstraint('id'),
    sqlite_strict=True
    )
    op.create_table('clock',
    sa.Column('kitchen_id', sa.Integer(), nullable=False),
    sa.Column('anchor_real', Instant(), nullable=False),
    sa.Column('anchor_sim', Instant(), nullable=False),
    sa.Column('rate', sa.Float(), nullable=False),
    sa.ForeignKeyConstraint(['kitchen_id'], ['kitchen.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('kitchen_id'),
    sqlite_strict=True
    )
    op.create_table('surface',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('kitchen_id', sa.Integer(), nullable=False),
    sa.Column('name', sa.String(), nullable=False),
    sa.Column('kind', sa.String(), nullable=False),
    sa.Column('temp_c', sa.Float(), nullable=False),
    sa.Column('power', sa.String(), nullable=False),
    sa.Column('spots', sa.Integer(), nullable=False),
    sa.ForeignKeyConstraint(['kitchen_id'], ['kitchen.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id'),
    sqlite_strict=True
    )
    with op.batch_alter_table('surface', schema=None) as batch_op:
        batch_op.create_index(batch_op.f('ix_surface_kitchen_id'), ['kitchen_id'], unique=False)
    _bake()
    _of_a_bake()


def _bake() -> None:
    op.create_table('bake',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('kitchen_id', sa.Integer(), nullable=False),
    sa.Column('name', sa.String(), nullable=False),
    sa.Column('method', sa.String(), nullable=False),
    sa.Column('seal', sa.String(), nullable=False),
    sa.Column('status', sa.String(), nullable=False),
    sa.Column('lines', sa.JSON(), nullable=False),
    sa.Column('strength', sa.String(), nullable=False),
    sa.Column('bloomed', sa.Boolean(), nullable=False),
    sa.Column('count', sa.Integer(), nullable=True),
    sa.Column('piece_g', sa.Float(), nullable=True),
    sa.Column('shape', sa.String(), nullable=False),
    sa.Column('diameter_cm', sa.Float(), nullable=True),
    sa.Column('length_cm', sa.Float(), nullable=True),
    sa.Column('width_cm', sa.Float(), nullable=True),
    sa.Column('thickness_mm', sa.Float(), nullable=True),
    sa.Column('dough_c', sa.Float(), nullable=False),
    sa.Column('knead', sa.String(), nullable=False),
    sa.Column('knead_min', sa.Float(), nullable=False),
    sa.Column('flour_c', sa.Float(), nullable=True),
    sa.Column('bulk_ratio', sa.Float(), nullable=False),
    sa.Column('ball_ratio', sa.Float(), nullable=False),
    sa.Column('surface_id', sa.Integer(), nullable=True),
    sa.Column('doneness', sa.String(), nullable=False),
    sa.Column('docked', sa.Boolean(), nullable=False),
    sa.Column('uneven_frac', sa.Float(), nullable=True),
    sa.Column('skin_min', sa.Float(), nullable=True),
    sa.Column('serve_at', Instant(), nullable=False),
    sa.Column('program', sa.JSON(none_as_null=True), nullable=True),
    sa.Column('note', sa.String(), nullable=False),
    sa.Column('revision', sa.Integer(), nullable=False),
    sa.Column('created_at', Instant(), nullable=False),
    sa.Column('kept_at', Instant(), nullable=True),
    sa.Column('deleted_at', Instant(), nullable=True),
    sa.ForeignKeyConstraint(['kitchen_id'], ['kitchen.id'], ondelete='CASCADE'),
    sa.ForeignKeyConstraint(['surface_id'], ['surface.id'], ondelete='SET NULL'),
    sa.PrimaryKeyConstraint('id'),
    sqlite_strict=True
    )
    with op.batch_alter_table('bake', schema=None) as batch_op:
        batch_op.create_index(batch_op.f('ix_bake_kitchen_id'), ['kitchen_id'], unique=False)


def _of_a_bake() -> None:
    op.create_table('outcome',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('bake_id', sa.Integer(), nullable=False),
    sa.Column('round_no', sa.Integer(), nullable=False),
    sa.Column('pocket', sa.String(), nullable=True),
    sa.Column('colour', sa.String(), nullable=True),
    sa.ForeignKeyConstraint(['bake_id'], ['bake.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id'),
    sa.UniqueConstraint('bake_id', 'round_no'),
    sqlite_strict=True
    )
    with op.batch_alter_table('outcome', schema=None) as batch_op:
        batch_op.create_index(batch_op.f('ix_outcome_bake_id'), ['bake_id'], unique=False)

    op.create_table('reading',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('kitchen_id', sa.Integer(), nullable=False),
    sa.Column('bake_id', sa.Integer(), nullable=True),
    sa.Column('kind', sa.String(), nullable=False),
    sa.Column('value', sa.Float(), nullable=True),
    sa.Column('feel', sa.String(), nullable=True),
    sa.Column('source', sa.String(), nullable=False),
    sa.Column('at', Instant(), nullable=False),
    sa.Column('made_at', Instant(), nullable=False),
    sa.Column('undone_at', Instant(), nullable=True),
    sa.ForeignKeyConstraint(['bake_id'], ['bake.id'], ondelete='CASCADE'),
    sa.ForeignKeyConstraint(['kitchen_id'], ['kitchen.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id'),
    sqlite_strict=True
    )
    with op.batch_alter_table('reading', schema=None) as batch_op:
        batch_op.create_index(batch_op.f('ix_reading_bake_id'), ['bake_id'], unique=False)
        batch_op.create_index(batch_op.f('ix_reading_kitchen_id'), ['kitchen_id'], unique=False)

    op.create_table('said',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('bake_id', sa.Integer(), nullable=False),
    sa.Column('name', sa.String(), nullable=False),
    sa.Column('p10', sa.Float(), nullable=True),
    sa.Column('p50', sa.Float(), nullable=True),
    sa.Column('p90', sa.Float(), nullable=True),
    sa.Column('since', Instant(), nullable=False),
    sa.ForeignKeyConstraint(['bake_id'], ['bake.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id'),
    sa.UniqueConstraint('bake_id', 'name'),
    sqlite_strict=True
    )
    with op.batch_alter_table('said', schema=None) as batch_op:
        batch_op.create_index(batch_op.f('ix_said_bake_id'), ['bake_id'], unique=False)

    op.create_table('tap',
    sa.Column('id', sa.Integer(), nullable=False),
    sa.Column('bake_id', sa.Integer(), nullable=False),
    sa.Column('key', sa.String(), nullable=False),
    sa.Column('kind', sa.String(), nullable=False),
    sa.Column('round_no', sa.Integer(), nullable=True),
    sa.Column('spot', sa.Integer(), nullable=True),
    sa.Column('at', Instant(), nullable=False),
    sa.Column('made_at', Instant(), nullable=False),
    sa.Column('undone_at', Instant(), nullable=True),
    sa.ForeignKeyConstraint(['bake_id'], ['bake.id'], ondelete='CASCADE'),
    sa.PrimaryKeyConstraint('id'),
    sa.UniqueConstraint('bake_id', 'key'),
    sqlite_strict=True
    )
    with op.batch_alter_table('tap', schema=None) as batch_op:
        batch_op.create_index(batch_op.f('ix_tap_bake_id'), ['bake_id'], unique=False)




def downgrade() -> None:

    with op.batch_alter_table('tap', schema=None) as batch_op:
        batch_op.drop_index(batch_op.f('ix_tap_bake_id'))

    op.drop_table('tap')
    with op.batch_alter_table('said', schema=None) as batch_op:
        batch_op.drop_index(batch_op.f('ix_said_bake_id'))

    op.drop_table('said')
    with op.batch_alter_table('reading', schema=None) as batch_op:
        batch_op.drop_index(batch_op.f('ix_reading_kitchen_id'))
        batch_op.drop_index(batch_op.f('ix_reading_bake_id'))

    op.drop_table('reading')
    with op.batch_alter_table('outcome', schema=None) as batch_op:
        batch_op.drop_index(batch_op.f('ix_outcome_bake_id'))

    op.drop_table('outcome')
    with op.batch_alter_table('bake', schema=None) as batch_op:
        batch_op.drop_index(batch_op.f('ix_bake_kitchen_id'))

    op.drop_table('bake')
    with op.batch_alter_table('surface', schema=None) as batch_op:
        batch_op.drop_index(batch_op.f('ix_surface_kitchen_id'))

    op.drop_table('surface')
    op.drop_table('clock')
    op.drop_table('kitchen')

