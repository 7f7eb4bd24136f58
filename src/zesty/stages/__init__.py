"""The stages of a job: one folder each, with what it draws and shows. `registry` lists them.

All stages are served in one way (`serving`): load, write, judge, draw. A stage's `page` says what is
its own; a stage without a folder is served as plain lines with the wheel end's section.
"""
