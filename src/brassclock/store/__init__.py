"""SQLite through SQLModel: tables, one repository per aggregate, migrations."""
