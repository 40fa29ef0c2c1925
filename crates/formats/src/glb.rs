//! GLB (glTF 2.0 binary): the folded mesh, in metres with y up as the format has it, each triangle with its own normal so
//! that flats look flat.

use serde_json::json;
use steelk_core::space::{Mesh, Point3};

use crate::output::Heading;

/// Twice the area of a triangle that has none, in the units of its mesh squared.
const SLIVER: f64 = 1e-15;

/// The mesh as the bytes of a GLB file.
pub fn write(mesh: &Mesh, name: &str, head: &Heading) -> Vec<u8> {
    let place = |point: Point3| [point.x / 1000.0, point.z / 1000.0, -point.y / 1000.0].map(|part| part as f32);
    let (mut positions, mut normals): (Vec<[f32; 3]>, Vec<[f32; 3]>) = (Vec::new(), Vec::new());
    for triangle in &mesh.triangles {
        let corners = triangle.map(|at| mesh.points[at as usize]);
        let normal = (corners[1] - corners[0]).cross(corners[2] - corners[0]);
        if normal.length() < SLIVER {
            continue;
        }
        let normal = normal.unit();
        for corner in corners {
            positions.push(place(corner));
            normals.push([normal.x, normal.z, -normal.y].map(|part| part as f32));
        }
    }
    let (mut low, mut high) = ([f32::INFINITY; 3], [f32::NEG_INFINITY; 3]);
    for point in &positions {
        for axis in 0..3 {
            low[axis] = low[axis].min(point[axis]);
            high[axis] = high[axis].max(point[axis]);
        }
    }
    let mut binary: Vec<u8> = Vec::with_capacity(positions.len() * 24);
    for values in [&positions, &normals] {
        binary.extend(values.iter().flatten().flat_map(|value| value.to_le_bytes()));
    }
    let count = positions.len();
    let length = count * 12;
    let document = json!({
        "asset": {"version": "2.0", "generator": "Steelk", "extras": {"of": head.lines()}},
        "scene": 0,
        "scenes": [{"nodes": [0]}],
        "nodes": [{"mesh": 0, "name": name}],
        "meshes": [{"name": name, "primitives": [{"attributes": {"POSITION": 0, "NORMAL": 1}, "material": 0}]}],
        "materials": [{"name": "sheet", "doubleSided": false,
            "pbrMetallicRoughness": {"baseColorFactor": [0.72, 0.76, 0.8, 1.0], "metallicFactor": 0.6, "roughnessFactor": 0.5}}],
        "buffers": [{"byteLength": 2 * length}],
        "bufferViews": [
            {"buffer": 0, "byteOffset": 0, "byteLength": length, "target": 34962},
            {"buffer": 0, "byteOffset": length, "byteLength": length, "target": 34962}
        ],
        "accessors": [
            {"bufferView": 0, "componentType": 5126, "count": count, "type": "VEC3", "min": low, "max": high},
            {"bufferView": 1, "componentType": 5126, "count": count, "type": "VEC3"}
        ]
    });
    let mut text = document.to_string().into_bytes();
    while !text.len().is_multiple_of(4) {
        text.push(b' ');
    }
    while !binary.len().is_multiple_of(4) {
        binary.push(0);
    }
    let mut file = Vec::with_capacity(28 + text.len() + binary.len());
    file.extend(b"glTF");
    let whole = 12 + 8 + text.len() + 8 + binary.len();
    file.extend([2, whole as u32, text.len() as u32].iter().flat_map(|value: &u32| value.to_le_bytes()));
    file.extend(b"JSON");
    file.extend(text);
    file.extend((binary.len() as u32).to_le_bytes());
    file.extend(b"BIN\0");
    file.extend(binary);
    file
}
