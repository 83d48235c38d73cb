"""Modelled things as bodies: reads the OBJ models in furniture libraries (SH3F, a ZIP) into POV-Ray meshes.

Debian's sweethome3d-furniture holds 800 under free licences. Things whose family is held out from training
(`HELD_OUT` in bodies.py) are left out here too.
"""
import glob
import os
import re
import zipfile

from bodies import Body, v

LEFT_OUT = re.compile(r"chair|stool|seat|boot|kettle|teapot|mallet|hammer|spring|bouquet|crate|cage|wall|door|window|female|male|boy|girl|human", re.I)
MOST_BYTES = 2_500_000


def catalogue(folder):
    """(archive, model path, rotation) of every model that may be used, in a fixed order."""
    out = []
    for archive in sorted(glob.glob(os.path.join(folder, "**", "*.sh3f"), recursive=True)):
        with zipfile.ZipFile(archive) as z:
            text = z.read("PluginFurnitureCatalog.properties").decode("latin-1")
            rows = {}
            for key, number, value in re.findall(r"^(\w+)#(\d+)=(.*)$", text, re.M):
                rows.setdefault(int(number), {})[key] = value.strip()
            for _, row in sorted(rows.items()):
                path = row.get("model", "").lstrip("/")
                if not path.endswith(".obj") or LEFT_OUT.search(row.get("name", "") + row.get("id", "") + path):
                    continue
                if path in z.namelist() and z.getinfo(path).file_size <= MOST_BYTES:
                    turn = [float(x) for x in row.get("modelRotation", "1 0 0 0 1 0 0 0 1").split()]
                    out.append((archive, path, turn))
    return out


def materials(z, path):
    """{name: (colour, opacity, picture path or None)} of an MTL file."""
    out, name = {}, None
    for line in z.read(path).decode("latin-1").splitlines() if path in z.namelist() else []:
        p = line.split()
        if not p:
            continue
        if p[0] == "newmtl":
            name = line.split(None, 1)[1].strip()
            out[name] = [[0.6, 0.6, 0.6], 1.0, None]
        elif name and p[0] == "Kd" and len(p) >= 4:
            out[name][0] = [float(x) ** 2.2 for x in p[1:4]]
        elif name and p[0] == "d" and len(p) >= 2:
            out[name][1] = float(p[-1])
        elif name and p[0] == "map_Kd":
            picture = os.path.join(os.path.dirname(path), p[-1])
            out[name][2] = picture if picture in z.namelist() else None
    return out


def modelled(m, item, folder):
    """The body of a catalogue entry; `folder` takes its pictures. None if it cannot be used."""
    archive, path, turn = item
    with zipfile.ZipFile(archive) as z:
        points, normals, places, faces, library, use = [], [], [], {}, {}, None
        for line in z.read(path).decode("latin-1").splitlines():
            p = line.split()
            if not p:
                continue
            if p[0] == "v":
                x = [float(a) for a in p[1:4]]
                points.append([sum(turn[3 * i + j] * x[j] for j in range(3)) for i in range(3)])
            elif p[0] == "vn":
                x = [float(a) for a in p[1:4]]
                n = [sum(turn[3 * i + j] * x[j] for j in range(3)) for i in range(3)]
                normals.append((n[0], n[1], -n[2]))
            elif p[0] == "vt":
                places.append((float(p[1]), float(p[2]) if len(p) > 2 else 0.0))
            elif p[0] == "mtllib":
                library.update(materials(z, os.path.join(os.path.dirname(path), line.split(None, 1)[1].strip())))
            elif p[0] == "usemtl":
                use = line.split(None, 1)[1].strip()
            elif p[0] == "f":
                corners = []
                for c in p[1:]:
                    q = c.split("/")
                    a = int(q[0])
                    t = int(q[1]) if len(q) > 1 and q[1] else 0
                    n = int(q[2]) if len(q) > 2 and q[2] else 0
                    corners.append((a - 1 if a > 0 else len(points) + a, t - 1 if t > 0 else len(places) + t if t else -1, n - 1 if n > 0 else -1))
                faces.setdefault(use, []).extend((corners[0], corners[k], corners[k + 1]) for k in range(1, len(corners) - 1))
        if not faces or sum(map(len, faces.values())) > 60_000:
            return None
        used = {c[0] for group in faces.values() for face in group for c in face}
        low = [min(points[k][i] for k in used) for i in range(3)]
        high = [max(points[k][i] for k in used) for i in range(3)]
        side = max(high[i] - low[i] for i in range(3)) or 1
        k = 1.8 / side
        mid = [(low[0] + high[0]) / 2, low[1], (low[2] + high[2]) / 2]
        # POV-Ray's z runs away from the camera, OBJ's towards it.
        points = [((a - mid[0]) * k, (b - mid[1]) * k, -(c - mid[2]) * k) for a, b, c in points]
        whole = m.tex() if m.chance(0.25) else None
        glass = False
        parts = []
        for name, group in faces.items():
            colour, opacity, picture = library.get(name, [[0.6, 0.6, 0.6], 1.0, None])
            if opacity < 0.1 and len(faces) > 1:
                continue
            mapped = ""
            if whole:
                tex = whole
            elif opacity < 0.7:
                tex, glass = m.glass(), True
            elif picture and m.chance(0.85):
                data = z.read(picture)
                if data[:4] == b"\x89PNG" and (data[25] in (4, 6) or b"tRNS" in data[:2000]):
                    return None  # leaves painted on cards: their outline is not that of the mesh
                kept = os.path.join(folder, re.sub(r"\W", "_", picture) + os.path.splitext(picture)[1].lower())
                with open(kept, "wb") as f:
                    f.write(data)
                kind = "png" if kept.endswith("png") else "jpeg"
                tex = m.put(f'uv_mapping pigment{{image_map{{{kind} "{kept}" interpolate 2}}}} finish{{ambient AMB diffuse 0.75}}')
                spots = [places[t] if 0 <= t < len(places) else (0.0, 0.0) for face in group for _, t, _ in face]
                mapped = f"uv_vectors{{{len(spots)},{','.join(f'<{a:.4f},{b:.4f}>' for a, b in spots)}}}"
            elif m.chance(0.3):
                tex = m.tex()
            else:
                f = m.r.choice(["", "specular 0.5 roughness 0.02", "specular 0.6 roughness 0.005 reflection{0.02 0.2}"])
                tex = m.put(f"pigment{{rgb {v(*colour)}}} finish{{ambient AMB diffuse 0.72 {f}}}")
            verts = [points[c] for face in group for c, _, _ in face]
            n = len(group)
            text = f"vertex_vectors{{{len(verts)},{','.join(f'<{a:.3f},{b:.3f},{c:.3f}>' for a, b, c in verts)}}}"
            bent = [normals[k] if 0 <= k < len(normals) else None for face in group for _, _, k in face]
            if all(bent):
                text += f" normal_vectors{{{len(bent)},{','.join(f'<{a:.2f},{b:.2f},{c:.2f}>' for a, b, c in bent)}}}"
            index = f"face_indices{{{n},{','.join(f'<{3 * i},{3 * i + 1},{3 * i + 2}>' for i in range(n))}}}"
            parts.append(f"mesh2{{{text} {mapped} {index} {tex}}}")
        if not parts:
            return None
    radius = max((a * a + c * c) ** 0.5 for a, b, c in points) if points else 1
    return Body("union{" + "".join(parts) + "}", min(radius, 1.4), (high[1] - low[1]) * k, m.textures, glass)
