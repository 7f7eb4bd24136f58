"""The colours of a drawing on paper. On screen the style sheet gives them, light and dark."""

PRINT = """
.part,.body,.shim{fill:#fff;stroke:#1d2a30;stroke-width:1.2}
.metal{fill:#fff}.solid{fill:#1d2a30}.rubber{fill:#5d686d}.absent{opacity:.35}
.s-cut,.s-bolt,.s-plain,.detail-ring,.dot-ring{fill:#fff}.s-roller,.s-light{fill:#e3e8e8}.s-solid{fill:#1d2a30}
.s-rubber{fill:#5d686d}.s-shim{fill:#d9cdb8}.s-line{fill:none;stroke:#1d2a30;stroke-width:1.7}
.s-line.roller,.s-line.light{stroke-width:1.5}.s-line.bolt{stroke-width:1.3}
.s-line.rubber,.s-line.neighbour{stroke-width:.8}
.s-line.behind{stroke-width:1.1}.s-line.fine,.s-line.break,.s-line.hidden{stroke-width:.9}
.s-line.fine-axis{stroke-width:.8;stroke-dasharray:9 2.5 2 2.5}.s-line.hidden{stroke-dasharray:4 3}
.s-line.neighbour{stroke-dasharray:11 3 2 3 2 3}
.s-line.contact{stroke:#a83c00;stroke-width:1.1;stroke-dasharray:5 3}
.s-line.sheet{stroke-width:3.4}.s-line.pin-out{stroke-width:5}.s-line.pin-in{stroke:#e3e8e8;stroke-width:2.6}
.s-hatch{fill:none;stroke:#7d878b;stroke-width:.8}.s-cut.lit,.s-plain.lit,.s-rubber.lit,.s-solid.lit,.s-shim.lit{fill:#e2731f}
.s-hatch.lit{stroke:#fff}.s-line.sheet.lit,.s-line.pin-in.lit{stroke:#e2731f}.edge{stroke:#1d2a30;stroke-width:1.7}
.detail-edge{fill:none;stroke:#1d2a30;stroke-width:1.3}.dim{stroke:#a83c00;stroke-width:1}.dim-head{fill:#a83c00}
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
