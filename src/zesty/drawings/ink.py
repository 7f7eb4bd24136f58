"""The colours of a drawing on paper. On screen the style sheet gives them, light and dark."""

PRINT = """
.part,.body,.shim{fill:#fff;stroke:#1d2a30;stroke-width:1.2}
.metal{fill:#fff}.solid{fill:#1d2a30}.rubber{fill:#5d686d}.absent{opacity:.35}
.hatch-a{fill:url(#hatch-a)}.hatch-b{fill:url(#hatch-b)}.hatch-c{fill:url(#hatch-c)}
.hatch-ground{fill:#fff}.hatch-line{stroke:#7d878b;stroke-width:1}
.roller{fill:#e3e8e8}.shim{fill:#d9cdb8}.new{fill:#e2731f}
.ink,.leader,.axle,.gate-axis,.gate-tick,.gate-doubt,.cross{stroke:#1d2a30;stroke-width:1;fill:none}
.centre-line{stroke:#1d2a30;stroke-width:1;stroke-dasharray:14 3 3 3}
.leader-dot{fill:#1d2a30}.label{fill:#1d2a30;font-family:'IBM Plex Mono',monospace}
.faint{fill:#4d585d}.strong,.big{font-weight:600}.lit{fill:#a83c00}.leader.lit{stroke:#a83c00}
.force{stroke:#a83c00;stroke-width:3}.force-head{fill:#a83c00}
.gate-window{fill:#dfe3da}.gate-post{fill:#1d2a30}.gate-aim{fill:#1f5c4d}.gate-mark{fill:#a83c00}
.gate-doubt{stroke-width:2}.gate-aim-text{fill:#1f5c4d}
.demanded{stroke:#1d2a30;stroke-width:1.2;stroke-dasharray:5 4}
.trial-mark{fill:#1d2a30}.trial-odd{fill:#fff;stroke:#a83c00;stroke-width:3}
.off-line{stroke:#a83c00;stroke-width:2;stroke-dasharray:3 2}.cross{stroke-width:2.5}
.next-mark{fill:none;stroke:#a83c00;stroke-width:2.5}
"""
