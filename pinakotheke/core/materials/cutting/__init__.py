"""What is cut from what: lengths from boards and strips (`lengths`)."""
