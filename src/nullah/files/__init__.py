"""Open formats: the project file, unsaved work, tables in CSV."""
