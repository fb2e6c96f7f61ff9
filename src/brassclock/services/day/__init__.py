"""Day: steps, what others have, changes of the plan, undo, options, export."""
