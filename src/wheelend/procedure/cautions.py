"""What is said once a job, at sign-off and on the sheet. All other cautions stand at their steps."""

ALWAYS = (
    "The vehicle maker's current procedure and local rules come first. Steering, brake and "
    "wheel-end work on road vehicles may need a licensed person."
)
