"""Opens DXF files with ezdxf and says as JSON what it makes of each: faults it finds, and the entities."""
import json
import sys

from ezdxf import recover


def placed(entity):
    kind = entity.dxftype()
    if kind == "LINE":
        points, sizes = [entity.dxf.start, entity.dxf.end], []
    elif kind in ("CIRCLE", "ARC"):
        points, sizes = [entity.dxf.center], [entity.dxf.radius]
    elif kind in ("TEXT", "INSERT", "MTEXT"):
        points, sizes = [entity.dxf.insert], []
    else:
        points, sizes = [], []
    return [xy for point in points for xy in (point.x, point.y)] + sizes


def words(entity):
    kind = entity.dxftype()
    if kind == "MTEXT":
        return entity.plain_text()
    if kind in ("TEXT", "ATTRIB"):
        return entity.plain_text()
    return entity.dxf.text if kind == "DIMENSION" else ""


said = {}
for path in sys.argv[1:]:
    document, auditor = recover.readfile(path)
    said[path] = {
        "faults": sorted(str(fault.code) for fault in [*auditor.errors, *auditor.fixes]),
        "entities": [
            {
                "kind": entity.dxftype(),
                "layer": entity.dxf.layer,
                "at": placed(entity),
                "words": words(entity),
                "attributes": [[a.dxf.tag, a.dxf.text] for a in entity.attribs]
                if entity.dxftype() == "INSERT"
                else [],
            }
            for layout in document.layouts
            for entity in layout
        ],
        "off": sorted(layer.dxf.name for layer in document.layers if layer.is_off()),
    }
json.dump(said, sys.stdout)
