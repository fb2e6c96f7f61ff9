"""Alembic's environment: runs on the engine it is handed."""

from alembic import context
from sqlmodel import SQLModel

from brassclock.store import tables  # noqa: F401  (registers the tables)

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=SQLModel.metadata, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
