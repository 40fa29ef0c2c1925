//! STEP AP214 (ISO 10303-21, -214): the folded part as one closed solid in millimetres.

use std::fmt::Write;

use steelk_core::patience;
use steelk_core::quantity::tolerance::NOTHING;
use steelk_core::space::{Body, Curve, Point3, Surface, Vector3};

use crate::output::Heading;

/// The solid as the text of a STEP file. The same solid and heading give the same file: no clock and no host are asked.
pub fn write(solid: &Body, name: &str, head: &Heading) -> String {
    write_all(&[(name.to_string(), solid.clone())], name, "folded sheet part, millimetres", head)
}

/// Several solids as one file, each by its name: the members of a frame.
pub fn write_all(solids: &[(String, Body)], name: &str, what: &str, head: &Heading) -> String {
    let mut file = File { text: String::new(), next: 1 };
    let name = quoted(name);
    // What it is, the note that applies, and of which revision.
    let description: Vec<String> =
        [what.to_string()].into_iter().chain(head.lines()).map(|line| quoted(&line)).collect();
    let known = |text: &Option<String>| quoted(text.as_deref().unwrap_or_default());
    let (by, date) = (known(&head.stamp.by), known(&head.stamp.date));
    file.text.push_str("ISO-10303-21;\nHEADER;\n");
    let _ = writeln!(file.text, "FILE_DESCRIPTION(({}),'2;1');", description.join(","));
    let _ = writeln!(file.text, "FILE_NAME({name},{date},({by}),(''),'Steelk','Steelk','');");
    file.text.push_str("FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));\nENDSEC;\nDATA;\n");
    let breps: Vec<usize> = solids.iter().map(|(own, solid)| add_solid(&mut file, solid, own)).collect();

    let millimetre = file.add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))".into());
    let radian = file.add("(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))".into());
    let steradian = file.add("(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())".into());
    let near = file.add(format!(
        "UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-05),#{millimetre},'distance_accuracy_value','')"
    ));
    let context = file.add(format!(
        "(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((#{near}))\
         GLOBAL_UNIT_ASSIGNED_CONTEXT((#{millimetre},#{radian},#{steradian}))REPRESENTATION_CONTEXT('',''))"
    ));
    let origin = file.placement(Point3::default(), Vector3::new(0.0, 0.0, 1.0), Vector3::new(1.0, 0.0, 0.0));
    let breps = breps.iter().map(|number| format!("#{number}")).collect::<Vec<_>>().join(",");
    let shape = file.add(format!("ADVANCED_BREP_SHAPE_REPRESENTATION('',(#{origin},{breps}),#{context})"));
    let application = file.add("APPLICATION_CONTEXT('automotive design')".into());
    file.add(format!(
        "APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000,#{application})"
    ));
    let product_context = file.add(format!("PRODUCT_CONTEXT('',#{application},'mechanical')"));
    let product = file.add(format!("PRODUCT({name},{name},'',(#{product_context}))"));
    let formation = file.add(format!("PRODUCT_DEFINITION_FORMATION('','',#{product})"));
    let definition_context = file.add(format!("PRODUCT_DEFINITION_CONTEXT('part definition',#{application},'design')"));
    let definition = file.add(format!("PRODUCT_DEFINITION('design','',#{formation},#{definition_context})"));
    let definition_shape = file.add(format!("PRODUCT_DEFINITION_SHAPE('','',#{definition})"));
    file.add(format!("SHAPE_DEFINITION_REPRESENTATION(#{definition_shape},#{shape})"));
    file.add(format!("PRODUCT_RELATED_PRODUCT_CATEGORY('part',$,(#{product}))"));
    file.text.push_str("ENDSEC;\nEND-ISO-10303-21;\n");
    file.text
}

/// Adds a solid; returns its number.
fn add_solid(file: &mut File, solid: &Body, name: &str) -> usize {
    let name = quoted(name);
    let corners: Vec<usize> = solid
        .corners
        .iter()
        .map(|&corner| {
            let point = file.point(corner);
            file.add(format!("VERTEX_POINT('',#{point})"))
        })
        .collect();
    let edges: Vec<usize> = solid
        .edges
        .iter()
        .map(|edge| {
            let (from, to) = (solid.corners[edge.from], solid.corners[edge.to]);
            let curve = file.curve(&edge.curve, from, to);
            file.add(format!("EDGE_CURVE('',#{},#{},#{curve},.T.)", corners[edge.from], corners[edge.to]))
        })
        .collect();
    let faces: Vec<String> = solid
        .faces
        .iter()
        .map(|face| {
            let bounds: Vec<String> = face
                .loops
                .iter()
                .enumerate()
                .map(|(at, walk)| {
                    let oriented: Vec<String> = walk
                        .iter()
                        .map(|&(edge, ahead)| {
                            let sense = if ahead { ".T." } else { ".F." };
                            format!("#{}", file.add(format!("ORIENTED_EDGE('',*,*,#{},{sense})", edges[edge])))
                        })
                        .collect();
                    let walk = file.add(format!("EDGE_LOOP('',({}))", oriented.join(",")));
                    let kind = if at == 0 { "FACE_OUTER_BOUND" } else { "FACE_BOUND" };
                    format!("#{}", file.add(format!("{kind}('',#{walk},.T.)")))
                })
                .collect();
            let (surface, sense) = file.surface(&face.surface);
            let sense = if sense { ".T." } else { ".F." };
            format!(
                "#{}",
                file.add(format!("ADVANCED_FACE({},({}),#{surface},{sense})", quoted(&face.name), bounds.join(",")))
            )
        })
        .collect();
    let shell = file.add(format!("CLOSED_SHELL('',({}))", faces.join(",")));
    file.add(format!("MANIFOLD_SOLID_BREP({name},#{shell})"))
}

/// A string of the exchange format: printable ASCII, quotes doubled.
fn quoted(text: &str) -> String {
    let plain: String =
        text.chars().map(|c| if c.is_ascii() && !c.is_ascii_control() && c != '\\' { c } else { '?' }).collect();
    format!("'{}'", plain.replace('\'', "''"))
}

fn real(value: f64) -> String {
    let value = if value.abs() < NOTHING { 0.0 } else { value };
    let text = format!("{value:.10}");
    let text = text.trim_end_matches('0');
    text.to_string()
}

fn triple(x: f64, y: f64, z: f64) -> String {
    format!("({},{},{})", real(x), real(y), real(z))
}

struct File {
    text: String,
    next: usize,
}

impl File {
    fn add(&mut self, entity: String) -> usize {
        patience::check();
        let number = self.next;
        self.next += 1;
        let _ = writeln!(self.text, "#{number}={entity};");
        number
    }

    fn point(&mut self, point: Point3) -> usize {
        self.add(format!("CARTESIAN_POINT('',{})", triple(point.x, point.y, point.z)))
    }

    fn direction(&mut self, v: Vector3) -> usize {
        self.add(format!("DIRECTION('',{})", triple(v.x, v.y, v.z)))
    }

    fn placement(&mut self, point: Point3, axis: Vector3, across: Vector3) -> usize {
        let (point, axis, across) = (self.point(point), self.direction(axis), self.direction(across));
        self.add(format!("AXIS2_PLACEMENT_3D('',#{point},#{axis},#{across})"))
    }

    fn curve(&mut self, curve: &Curve, from: Point3, to: Point3) -> usize {
        match curve {
            Curve::Line => {
                let (point, direction) = (self.point(from), self.direction((to - from).unit()));
                let vector = self.add(format!("VECTOR('',#{direction},1.)"));
                self.add(format!("LINE('',#{point},#{vector})"))
            }
            Curve::Circle { centre, axis, radius } => {
                let placement = self.placement(*centre, *axis, (from - *centre).unit());
                self.add(format!("CIRCLE('',#{placement},{})", real(*radius)))
            }
            Curve::Ellipse { centre, axis, major, long, short } => {
                let placement = self.placement(*centre, *axis, *major);
                self.add(format!("ELLIPSE('',#{placement},{},{})", real(*long), real(*short)))
            }
            Curve::Cubic(points) => {
                let list: Vec<String> = points.iter().map(|&point| format!("#{}", self.point(point))).collect();
                let (counts, knots) = knots(points.len());
                self.add(format!(
                    "B_SPLINE_CURVE_WITH_KNOTS('',3,({}),.UNSPECIFIED.,.F.,.F.,({counts}),({knots}),.UNSPECIFIED.)",
                    list.join(",")
                ))
            }
        }
    }

    /// The surface, and whether its own normal looks away from the metal.
    fn surface(&mut self, surface: &Surface) -> (usize, bool) {
        match surface {
            Surface::Plane { point, normal, across } => {
                let placement = self.placement(*point, *normal, *across);
                (self.add(format!("PLANE('',#{placement})")), true)
            }
            Surface::Cylinder { point, axis, across, radius, outward } => {
                let placement = self.placement(*point, *axis, *across);
                (self.add(format!("CYLINDRICAL_SURFACE('',#{placement},{})", real(*radius))), *outward)
            }
            Surface::Cone { point, axis, across, radius, slope, outward } => {
                // The standard's cone opens along its axis.
                let (axis, opening) = if *slope < 0.0 { (-*axis, -slope) } else { (*axis, *slope) };
                let placement = self.placement(*point, axis, *across);
                let angle = real(opening.atan());
                (self.add(format!("CONICAL_SURFACE('',#{placement},{},{angle})", real(*radius))), *outward)
            }
            Surface::Torus { point, axis, across, major, minor, outward } => {
                let placement = self.placement(*point, *axis, *across);
                let (major, minor) = (real(*major), real(*minor));
                (self.add(format!("TOROIDAL_SURFACE('',#{placement},{major},{minor})")), *outward)
            }
            Surface::Ruled { first, second, outward } => {
                let mut rows = Vec::new();
                for (one, two) in first.iter().zip(second) {
                    rows.push(format!("(#{},#{})", self.point(*one), self.point(*two)));
                }
                let (counts, knots) = knots(first.len());
                let number = self.add(format!(
                    "B_SPLINE_SURFACE_WITH_KNOTS('',3,1,({}),.UNSPECIFIED.,.F.,.F.,.F.,({counts}),(2,2),({knots}),(0.,1.),\
                     .UNSPECIFIED.)",
                    rows.join(",")
                ));
                (number, *outward)
            }
        }
    }
}

/// Multiplicities and knots of cubic pieces end to end.
fn knots(points: usize) -> (String, String) {
    let pieces = (points - 1) / 3;
    let counts: Vec<&str> = (0..=pieces).map(|at| if at == 0 || at == pieces { "4" } else { "3" }).collect();
    let knots: Vec<String> = (0..=pieces).map(|at| real(at as f64 / pieces as f64)).collect();
    (counts.join(","), knots.join(","))
}
