"""Runs migrations on the data file that `database` names."""

from alembic import context
from sqlalchemy import create_engine

from jumpstop.store.tables import metadata

engine = create_engine(context.config.get_main_option("sqlalchemy.url") or "")
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=metadata, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
