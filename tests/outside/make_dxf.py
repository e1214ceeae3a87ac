"""Writes drawings with ezdxf that hold what our own never do. Into the folder that is given."""
import sys
from pathlib import Path

import ezdxf
from ezdxf.enums import TextEntityAlignment

folder = Path(sys.argv[1])


def sheets(version):
    """A model of three layers, laid out on two sheets with a title block each; the second freezes a layer."""
    doc = ezdxf.new(version, setup=True)
    doc.header["$INSUNITS"] = 4
    for name, colour, weight in (("WALL", 1, 70), ("PILE", 3, 25), ("NOTE", 7, 13)):
        doc.layers.add(name, color=colour, lineweight=weight)
    model = doc.modelspace()
    model.add_line((0, 0), (8000, 0), dxfattribs={"layer": "WALL"})
    model.add_line((0, 4000), (8000, 4000), dxfattribs={"layer": "WALL"})
    for i in range(5):
        model.add_circle((1000 + 1500 * i, 2000), 300, dxfattribs={"layer": "PILE"})
    model.add_mtext(
        "All piles are driven to refusal and cut off at level after testing",
        dxfattribs={"layer": "NOTE", "insert": (0, 5000), "char_height": 200, "width": 2500},
    )
    title = doc.blocks.new("TITLE_A3")
    title.add_lwpolyline([(0, 0), (180, 0), (180, 40), (0, 40)], close=True)
    title.add_attdef("DRAWING_NUMBER", (5, 25), dxfattribs={"height": 5})
    title.add_attdef("REV", (150, 25), dxfattribs={"height": 5})
    layouts = [doc.layout("Layout1"), doc.layouts.new("Piles")]
    doc.layouts.rename("Layout1", "Walls")
    for number, layout in zip(("VFT-MW-LS-00-DR-0901", "VFT-MW-LS-00-DR-0902"), layouts):
        layout.page_setup(size=(420, 297), margins=(0, 0, 0, 0))
        layout.add_lwpolyline([(10, 10), (410, 10), (410, 287), (10, 287)], close=True, dxfattribs={"const_width": 1})
        layout.add_blockref("TITLE_A3", (225, 15)).add_auto_attribs({"DRAWING_NUMBER": number, "REV": "P02"})
        layout.add_text("laid out here", height=6).set_placement((20, 270), align=TextEntityAlignment.LEFT)
        window = layout.add_viewport(center=(210, 160), size=(380, 200), view_center_point=(4000, 2500), view_height=8000)
        if number.endswith("2"):
            window.dxf.flags = 0
            window.frozen_layers = ["WALL"]
    doc.saveas(folder / f"sheets-{version}.dxf")


def odd():
    """What others draw and ours do not: points, meshes, wide and tapered lines, gradients, dimensions without picture."""
    doc = ezdxf.new("R2010", setup=True)
    doc.header["$PDMODE"] = 35
    doc.header["$PDSIZE"] = 40
    model = doc.modelspace()
    model.add_point((100, 100))
    model.add_lwpolyline([(0, 0), (500, 0), (500, 300)], dxfattribs={"const_width": 20})
    model.add_lwpolyline([(600, 0, 0, 60), (700, 0, 60, 0)], format="xyse")
    mesh = model.add_polyface()
    mesh.append_faces([[(0, 400, 0), (100, 400, 0), (100, 500, 0), (0, 500, 0)], [(100, 500, 0), (100, 400, 0), (200, 450, 0)]])
    grid = model.add_polymesh((3, 3))
    for m in range(3):
        for n in range(3):
            grid.set_mesh_vertex((m, n), (300 + 50 * m, 400 + 50 * n, 0))
    hatch = model.add_hatch()
    hatch.paths.add_polyline_path([(600, 400), (800, 400), (800, 500), (600, 500)], is_closed=True)
    hatch.set_gradient((255, 0, 0), (0, 0, 255), rotation=90, name="LINEAR")
    model.add_attdef("LEVEL", (0, 600), text="+3.40", dxfattribs={"height": 25})
    model.add_text("BEYOND THE LAST LINE", height=40).set_placement((800, 300))
    # Not rendered: the dimension has no block that shows it.
    model.add_linear_dim(base=(0, -80), p1=(0, 0), p2=(500, 0))
    model.add_blockref("NOT THERE", (0, 0))
    model.add_ray((0, 0), (1, 1))
    doc.saveas(folder / "odd.dxf")


def nothing():
    doc = ezdxf.new("R2000")
    doc.saveas(folder / "nothing.dxf")


sheets("R2000")
sheets("R2018")
odd()
nothing()
