"""Shapes of requests and answers.

Their annotations are not deferred: pydantic would evaluate each one as text, a tenth of what a start imports.
"""
