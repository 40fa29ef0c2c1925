//! Plates on a frame: each is built as a plate piece is, and laid where its members are.

use crate::finding::{Finding, Severity};
use crate::plane::{Outline, Point, Vector, offset};
use crate::quantity::tolerance::{NO_TURN, PARALLEL, PARALLEL_COSINE, ROUNDING};
use crate::quantity::{LengthUnit, Names, decimal};
use crate::sheet::{MethodNumbers, Numbers, Part, build, read_operation, write_path};
use crate::space::{Point3, Vector3};
use crate::stock::{Material, THICKEST};
use crate::work::frame::{BasePlate, CapPlate, FacePlate, GussetPlate, LugReview, PanelPlate, PlateKind, PlateStands};
use crate::work::shape::{BaseShape, PlacedBy, Profile};
use crate::work::sheet::LayDown;
use crate::work::{Action, Operation, PlateAction};

use super::end_at::{EndAt, basis_at, inward};
use super::laid_plate::{FramePlate, PlateForm, Told};
use super::lug::LugNumbers;
use super::member::Basis;
use super::model::{Frame, ends_of, material_named, members_named, out_of};
use super::reader::Reader;
use super::told;

/// What a plate is laid with.
pub struct PlateContext<'a> {
    /// The frame.
    pub frame: &'a mut Frame,
    /// Names that may be cited.
    pub names: &'a Names,
    /// The piece's material.
    pub material: &'static Material,
    /// What messages speak in.
    pub unit: LengthUnit,
    /// Plates so far.
    pub plates: &'a mut Vec<FramePlate>,
}

/// A shape's outline and holes, mm.
///
/// # Errors
/// A shape that cannot be read.
pub fn shape_outline(shape: &BaseShape, names: &Names) -> Result<(Outline, Vec<Outline>), Finding> {
    let operation = Operation {
        name: "outline".into(),
        rested: false,
        action: Action::LayDown(LayDown { shape: shape.clone(), by: None }),
    };
    let read = read_operation(&operation, &numbers(names, 1.0));
    match read.numbers.as_ref().and_then(|numbers| numbers.laid()) {
        Some(laid) => Ok((laid.outer.clone(), laid.holes.iter().map(|(_, hole)| hole.clone()).collect())),
        None => Err(read
            .findings
            .into_iter()
            .find(|finding| finding.severity == Severity::Error)
            .unwrap_or_else(|| Finding::error("this outline cannot be laid", "Correct its sizes."))),
    }
}

fn numbers(names: &Names, thickness: f64) -> Numbers {
    let mut names = names.clone();
    for name in ["T", "R"] {
        let quantity = crate::quantity::Quantity::new(thickness, crate::quantity::Dimension::LENGTH);
        names.set(name, crate::quantity::Known::Value(quantity));
    }
    Numbers {
        names,
        thickness,
        radius: thickness,
        method: MethodNumbers::KFactor { k: 0.44, source: "a plate is not bent".into() },
    }
}

fn lay_down(shape: BaseShape, by: Option<PlacedBy>) -> Operation {
    Operation { name: "base".into(), rested: false, action: Action::LayDown(LayDown { shape, by }) }
}

fn outline_shape(outline: &Outline) -> BaseShape {
    BaseShape::Profile(Profile {
        unit: LengthUnit::Mm,
        outer: write_path(outline),
        holes: Vec::new(),
        source: "the frame".into(),
    })
}

/// One plate to be built and laid.
struct Laying {
    form: PlateForm,
    shape: Operation,
    /// Its outline as it lies in `basis`. A shape is laid from a corner or a centre of its own; this says where it belongs.
    outline: Outline,
    basis: Basis,
    meets: Vec<(usize, f64)>,
    told: Vec<Told>,
}

fn add(
    context: &mut PlateContext<'_>,
    operation: &str,
    action: &PlateAction,
    thickness: f64,
    lay: Laying,
) -> Result<(), Finding> {
    let material = material_named(action.material.as_ref(), context.material)?;
    let mut work = vec![lay.shape];
    work.extend(action.work.iter().cloned());
    let given = numbers(context.names, thickness);
    let mut made = Vec::new();
    for step in work.iter().filter(|step| !step.rested) {
        let read = read_operation(step, &given);
        if let Some(fault) = read.findings.into_iter().find(|finding| finding.severity == Severity::Error) {
            return Err(Finding {
                message: format!("{}: {}", step.name, fault.message),
                field: Some("work".into()),
                ..fault
            });
        }
        made.extend(read.numbers.map(|numbers| (step.name.clone(), numbers)));
    }
    let built = build(&made, thickness, false, context.unit);
    let laid = made.first().and_then(|(_, numbers)| numbers.laid());
    let laid_at = laid.map_or(&lay.outline, |laid| &laid.outer).extents().low;
    let shift = lay.outline.extents().low - laid_at;
    let basis = Basis { origin: lay.basis.place(shift.x, shift.y, 0.0), ..lay.basis };
    if let Some(fault) = built.findings.iter().find(|finding| finding.severity == Severity::Error) {
        return Err(Finding { field: Some("work".into()), ..fault.clone() });
    }
    let Some(part) = Part::new(&built, material.density) else {
        return Err(Finding::error("this plate has no outline", "Correct its sizes."));
    };
    let number = context.plates.iter().filter(|plate| plate.operation == operation).count();
    context.plates.push(FramePlate {
        name: if number == 0 { operation.to_string() } else { format!("{operation}.{}", number + 1) },
        operation: operation.to_string(),
        mark: action.mark.clone(),
        form: lay.form,
        material,
        thickness,
        work,
        part,
        basis,
        weldment: action.weldment.clone(),
        meets: lay.meets,
        told: lay.told,
        lug: None,
    });
    Ok(())
}

/// Lays a plate, or one for each member or pair that is meant.
///
/// # Errors
/// Members that are not there or do not meet, sizes that cannot be, work on the plate that fails.
pub fn lay_plate(
    context: &mut PlateContext<'_>,
    operation: &str,
    action: &PlateAction,
    reader: &mut Reader<'_>,
) -> Result<(), Finding> {
    let thickness = reader.size("thickness", &action.thickness, "a thickness")?;
    if thickness > THICKEST {
        return Err(Finding::error(
            format!("a thickness of {} mm is no plate: up to {THICKEST} mm is", decimal(thickness, 3)),
            "Type the plate's thickness, such as 8 mm.",
        )
        .at_field("thickness"));
    }
    match &action.kind {
        PlateKind::Gusset(gusset) => {
            for lay in gussets(context, gusset, thickness, reader)? {
                add(context, operation, action, thickness, lay)?;
            }
        }
        PlateKind::Base(base) => {
            for lay in bases(context, base, thickness)? {
                add(context, operation, action, thickness, lay)?;
            }
        }
        PlateKind::Face(face) => {
            let figures = face.lifts.as_ref().map(|review| lug_numbers(review, reader)).transpose()?;
            for lay in on_faces(context, face, thickness, reader)? {
                add(context, operation, action, thickness, lay)?;
                if let (Some(review), Some(plate)) = (&figures, context.plates.last_mut()) {
                    plate.lug = Some(super::lug::review(&plate.part, review)?);
                }
            }
        }
        PlateKind::Panel(panel) => {
            let lay = panel_of(context, panel, thickness, reader)?;
            add(context, operation, action, thickness, lay)?;
        }
    }
    Ok(())
}

/// How far a section reaches from its line in a direction of space, mm.
fn reach(frame: &Frame, member: usize, basis: &Basis, way: Vector3) -> f64 {
    let around = frame.members[member].region.extents();
    let pick = |weight: f64, low: f64, high: f64| weight * if weight > 0.0 { high } else { low };
    pick(basis.u.dot(way), around.low.x, around.high.x) + pick(basis.v.dot(way), around.low.y, around.high.y)
}

fn gussets(
    context: &mut PlateContext<'_>,
    gusset: &GussetPlate,
    thickness: f64,
    reader: &mut Reader<'_>,
) -> Result<Vec<Laying>, Finding> {
    let (first, second) = (
        reader.size("kind.gusset.first", &gusset.first, "a leg")?,
        reader.size("kind.gusset.second", &gusset.second, "a leg")?,
    );
    let corner = reader.maybe("kind.gusset.corner", gusset.corner.as_ref(), "a clip")?;
    let tips = reader.maybe("kind.gusset.tips", gusset.tips.as_ref(), "a blunt tip")?;
    let off = reader.maybe("kind.gusset.off", gusset.off.as_ref(), "an offset")?;
    if corner >= first.min(second) || tips >= first.min(second) {
        return Err(Finding::error(
            format!("a clip of {corner:.1} mm and tips of {tips:.1} mm leave nothing of legs of {first:.1} and {second:.1} mm"),
            "Take smaller clips or longer legs.",
        )
        .at_field("kind.gusset"));
    }
    let frame = &*context.frame;
    let ones = members_named(frame, &gusset.between[..1], "kind.gusset.between")?;
    let twos = members_named(frame, &gusset.between[1..], "kind.gusset.between")?;
    let mut all = Vec::new();
    for meeting in &frame.meetings {
        let here: Vec<usize> =
            meeting.ends.iter().map(|end| end.member).chain(meeting.passing.iter().copied()).collect();
        for &one in ones.iter().filter(|one| here.contains(one)) {
            for &two in twos.iter().filter(|two| here.contains(two) && **two != one) {
                // The way from the node into each; a member that runs on has a corner on either side.
                let ways = |member: usize| -> Vec<Vector3> {
                    match meeting.ends.iter().find(|end| end.member == member) {
                        Some(end) => vec![inward(&frame.members[member], end.which)],
                        None => {
                            let along = basis_at(&frame.members[member], meeting.place).w;
                            vec![along, -along]
                        }
                    }
                };
                for a in ways(one) {
                    for b in ways(two) {
                        let square = a.cross(b);
                        if square.length() < 0.05 {
                            continue;
                        }
                        let square = square.unit();
                        let (inner_a, inner_b) = (square.cross(a), b.cross(square));
                        let (basis_a, basis_b) = (
                            basis_at(&frame.members[one], meeting.place),
                            basis_at(&frame.members[two], meeting.place),
                        );
                        let (deep_a, deep_b) =
                            (reach(frame, one, &basis_a, inner_a), reach(frame, two, &basis_b, inner_b));
                        let middle = (reach(frame, one, &basis_a, square) - reach(frame, one, &basis_a, -square)) / 2.0;
                        let foot = meeting.place
                            + a * (deep_b / a.dot(inner_b))
                            + b * (deep_a / b.dot(inner_a))
                            + square * (middle + off - thickness / 2.0);
                        let basis = Basis { origin: foot, u: a, v: inner_a, w: square };
                        let along_b = Vector::new(b.dot(a), b.dot(inner_a));
                        let out_b = along_b.right();
                        let origin = Point::default();
                        let mut corners = Vec::new();
                        if corner > 0.0 {
                            corners.push(origin + along_b * corner);
                            corners.push(Point::new(corner, 0.0));
                        } else {
                            corners.push(origin);
                        }
                        corners.push(Point::new(first, 0.0));
                        if tips > 0.0 {
                            corners.push(Point::new(first, tips));
                            corners.push(origin + along_b * second + out_b * tips);
                        }
                        corners.push(origin + along_b * second);
                        let outline = Outline::polygon(&corners.into_iter().map(|at| (at, 0)).collect::<Vec<_>>());
                        let told = told::gusset(frame, (one, inner_a), (two, inner_b), (square, off), meeting.place);
                        all.push(Laying {
                            form: PlateForm::Gusset,
                            shape: lay_down(outline_shape(&outline), None),
                            outline,
                            basis,
                            meets: vec![(one, first - corner), (two, second - corner)],
                            told,
                        });
                    }
                }
            }
        }
    }
    if all.is_empty() {
        return Err(Finding::error(
            format!("{} and {} do not meet in a corner", gusset.between[0], gusset.between[1]),
            "Name two members that share a node.",
        )
        .at_field("kind.gusset.between"));
    }
    Ok(all)
}

/// The middle of an end's cut and the frame of a plate across it: w away from the member.
fn across_end(frame: &Frame, end: EndAt) -> Basis {
    let member = &frame.members[end.member];
    let basis = member.basis(end.which);
    let middle = member.region.extents().centre();
    let t = member.sawn_reach(end.which, middle);
    let origin = basis.place(middle.x, middle.y, t);
    let own = &member.ends[end.which.at()];
    let normal = match own.planes.as_slice() {
        [cut] if own.copes.is_empty() => basis.turn_out(cut.normal),
        _ => basis.w * end.which.way(),
    };
    Basis::about(origin, normal, basis.v)
}

/// An outline of the section as the end's cut has it, in the frame of a plate across it: on a slanted cut it is longer, and its
/// rounds are ellipses, told in lines.
fn on_cut(frame: &Frame, end: EndAt, across: &Basis, outline: &Outline) -> Outline {
    /// How near the lines are to the rounds, mm.
    const CHORD: f64 = 0.005;
    let member = &frame.members[end.member];
    let basis = member.basis(end.which);
    let reach = |at: Point| member.sawn_reach(end.which, at);
    let place = |at: Point| {
        let seen = across.local(basis.place(at.x, at.y, reach(at)));
        Point::new(seen.x, seen.y)
    };
    let square = across.w.dot(basis.w).abs() > 1.0 - PARALLEL_COSINE;
    if square {
        let moved = outline.moved(place);
        // Seen from outside a start its across runs the other way.
        return if across.w.dot(basis.w) < 0.0 { super::model::mirrored_outline(&moved) } else { moved };
    }
    let corners: Vec<(Point, u32)> = outline.flatten(CHORD).into_iter().map(|at| (place(at), 0)).collect();
    Outline::polygon(&corners).counter_clockwise()
}

/// A basis with its origin moved so that the middle of an outline's box comes to lie on the old origin.
fn centred(basis: Basis, outline: &Outline) -> Basis {
    let middle = outline.extents().centre();
    Basis { origin: basis.place(-middle.x, -middle.y, 0.0), ..basis }
}

fn bases(context: &mut PlateContext<'_>, base: &BasePlate, thickness: f64) -> Result<Vec<Laying>, Finding> {
    let chosen = members_named(context.frame, &base.of, "kind.base.of")?;
    let (outline, _) = shape_outline(&base.shape, &numbers(context.names, thickness).names)?;
    let mut all = Vec::new();
    for end in ends_of(&chosen, base.at) {
        if base.within {
            for cut in &mut context.frame.members[end.member].ends[end.which.at()].planes {
                cut.level -= thickness;
            }
        }
        let told = told::across(context.frame, end);
        let basis = centred(across_end(context.frame, end), &outline);
        let around = context.frame.members[end.member].section.paint_perimeter();
        all.push(Laying {
            form: PlateForm::BasePlate,
            shape: lay_down(base.shape.clone(), None),
            outline: outline.clone(),
            basis,
            meets: vec![(end.member, around)],
            told,
        });
    }
    Ok(all)
}

/// Lays an end cap.
///
/// # Errors
/// An inset cap on a section that is not hollow, or with no room for it.
pub fn lay_cap(
    context: &mut PlateContext<'_>,
    operation: &str,
    end: EndAt,
    cap: &CapPlate,
    reader: &mut Reader<'_>,
) -> Result<(), Finding> {
    let thickness = reader.size("how.cap.thickness", &cap.thickness, "a thickness")?;
    let member = &context.frame.members[end.member];
    let (outline, sunk) = match &cap.inset {
        None => (member.region.outer.clone(), false),
        Some(text) => {
            let clearance = reader.length("how.cap.inset", text, "a clearance")?;
            let hole = member.region.holes.first().ok_or_else(|| {
                Finding::error(
                    format!("{} is not hollow, so no cap goes inside it", member.section.name),
                    "Put the cap over its end.",
                )
                .at_field("how.cap.inset")
            })?;
            let inner = offset(hole, -clearance).into_iter().next().ok_or_else(|| {
                Finding::error(format!("a clearance of {clearance} mm leaves no cap"), "Take a smaller one.")
                    .at_field("how.cap.inset")
            })?;
            (inner, true)
        }
    };
    let basis = across_end(context.frame, end);
    let seen = on_cut(context.frame, end, &basis, &outline);
    let basis = Basis { origin: basis.place(0.0, 0.0, if sunk { -thickness } else { 0.0 }), ..basis };
    let action = PlateAction {
        kind: PlateKind::Base(BasePlate {
            of: Vec::new(),
            at: Default::default(),
            shape: outline_shape(&seen),
            within: false,
        }),
        thickness: cap.thickness.clone(),
        material: None,
        mark: None,
        weldment: member.weldment.clone(),
        work: Vec::new(),
    };
    let told = told::over_end(context.frame, end, &outline, if sunk { -thickness } else { 0.0 });
    let around = seen.perimeter();
    let lay = Laying {
        form: PlateForm::EndCap,
        shape: lay_down(outline_shape(&seen), None),
        outline: seen,
        basis,
        meets: vec![(end.member, around)],
        told,
    };
    add(context, operation, &action, thickness, lay)
}

fn on_faces(
    context: &mut PlateContext<'_>,
    face: &FacePlate,
    thickness: f64,
    reader: &mut Reader<'_>,
) -> Result<Vec<Laying>, Finding> {
    let chosen = members_named(context.frame, &face.of, "kind.face.of")?;
    let at = reader.length("kind.face.at", &face.at, "a distance along the member")?;
    let off = reader.maybe("kind.face.off", face.off.as_ref(), "an offset from the middle")?;
    let (outline, _) = shape_outline(&face.shape, &numbers(context.names, thickness).names)?;
    let around = outline.extents();
    let frame = &*context.frame;
    let mut all = Vec::new();
    for index in chosen {
        let member = &frame.members[index];
        let distance = if at < 0.0 { member.line_length() + at } else { at };
        let mut basis = member.start;
        let mut left = distance;
        for line in &member.lines {
            let length = line.length();
            if left <= length + ROUNDING {
                basis = super::member::part_way(basis, line, left.max(0.0));
                break;
            }
            left -= length;
            basis = super::member::along(basis, line);
        }
        let mut out = out_of(face.face);
        if member.mirrored {
            out = Vector::new(-out.x, out.y);
        }
        let box2 = member.region.extents();
        let middle = box2.centre();
        let half = if out.x.abs() > 0.5 { box2.width() } else { box2.height() } / 2.0;
        // As for holes: up, or to the right, on the drawn section whichever face it is; a mirror image has its left and
        // right changed over.
        let side = match (out.x.abs() > 0.5, member.mirrored) {
            (true, _) => Vector::new(0.0, 1.0),
            (false, false) => Vector::new(1.0, 0.0),
            (false, true) => Vector::new(-1.0, 0.0),
        };
        let place = middle + out * half + side * off;
        let origin = basis.place(place.x, place.y, 0.0);
        let normal = basis.turn_out(Vector3::new(out.x, out.y, 0.0));
        let (along, across) = (basis.w, normal.cross(basis.w));
        let (basis, form, meets) = match face.stands {
            None => {
                let own = Basis { origin, u: along, v: across, w: normal };
                (centred(own, &outline), PlateForm::OnFace, 2.0 * (around.width() + around.height().min(2.0 * half)))
            }
            Some(stands) => {
                let (u, w) = match stands {
                    PlateStands::Along => (along, along.cross(normal)),
                    PlateStands::Across => (across, across.cross(normal)),
                };
                let own = Basis { origin, u, v: normal, w };
                let foot = Point::new(around.centre().x, around.low.y);
                let origin = own.place(-foot.x, -foot.y, -thickness / 2.0);
                (
                    Basis { origin, ..own },
                    if face.lifts.is_some() { PlateForm::Lug } else { PlateForm::Upright },
                    2.0 * (around.width() + thickness),
                )
            }
        };
        let told = told::on_face(member, face.face, distance, off);
        all.push(Laying {
            form,
            shape: lay_down(face.shape.clone(), None),
            outline: outline.clone(),
            basis,
            meets: vec![(index, meets)],
            told,
        });
    }
    Ok(all)
}

fn panel_of(
    context: &mut PlateContext<'_>,
    panel: &PanelPlate,
    thickness: f64,
    reader: &mut Reader<'_>,
) -> Result<Laying, Finding> {
    let clearance = reader.maybe("kind.panel.clearance", panel.clearance.as_ref(), "a clearance")?;
    let frame = &*context.frame;
    let mut members = Vec::new();
    for (at, name) in panel.between.iter().enumerate() {
        let found = members_named(frame, std::slice::from_ref(name), "kind.panel.between")?;
        let [one] = found.as_slice() else {
            return Err(Finding::error(
                format!("{name} is {} members; a panel's side is one", found.len()),
                "Name one.",
            )
            .at_field(format!("kind.panel.between.{at}")));
        };
        members.push(*one);
    }
    let count = members.len();
    if !(3..=12).contains(&count) || members.iter().any(|&at| !frame.members[at].is_straight()) {
        return Err(Finding::error(
            "a panel lies between 3 to 12 straight members round an opening",
            "Name them in order.",
        )
        .at_field("kind.panel.between"));
    }
    let line = |at: usize| &frame.members[members[at % count]].lines[0];
    let way = |at: usize| (line(at).to - line(at).from).unit();
    let mut normal = way(0).cross(way(1));
    if normal.length() < NO_TURN {
        return Err(Finding::error(
            "the first two members of this panel run the same way",
            "Name them in order round the opening.",
        )
        .at_field("kind.panel.between"));
    }
    normal = normal.unit();
    if normal.z < -PARALLEL || (normal.z.abs() < PARALLEL && normal.y > PARALLEL) {
        normal = -normal;
    }
    let middle = (0..count).fold(Vector3::default(), |sum, at| {
        sum + (line(at).from.from_origin() + line(at).to.from_origin()) * (0.5 / count as f64)
    });
    let middle = Point3::default() + middle;
    // The metal's middle or top square to the panel.
    let basis_of = |at: usize| frame.members[members[at]].start;
    let (mut top, mut low) = (f64::NEG_INFINITY, f64::INFINITY);
    for at in 0..count {
        let level = (line(at).from - middle).dot(normal);
        if (level - (line(at).to - middle).dot(normal)).abs() > 0.01 {
            return Err(Finding::error(
                format!("{} does not lie in one plane with the others", frame.members[members[at]].name),
                "A panel's members lie in one plane.",
            )
            .at_field("kind.panel.between"));
        }
        top = top.max(level + reach(frame, members[at], &basis_of(at), normal));
        low = low.min(level - reach(frame, members[at], &basis_of(at), -normal));
    }
    let level = if panel.on_top { top } else { (top + low - thickness) / 2.0 };
    let u = way(0);
    let basis = Basis { origin: middle + normal * level, u, v: normal.cross(u), w: normal };
    let flat = |place: Point3| {
        let local = basis.local(place);
        Point::new(local.x, local.y)
    };
    // Each side as a line of the flat, moved in to the near face (or out to the far one) and by the clearance.
    let sides: Vec<(Point, Vector)> = (0..count)
        .map(|at| {
            let (from, to) = (flat(line(at).from), flat(line(at).to));
            let along = (to - from).unit();
            let mut inside = along.left();
            if (Point::default() - from).dot(inside) < 0.0 {
                inside = -inside;
            }
            let inward = basis.u * inside.x + basis.v * inside.y;
            let by = if panel.on_top {
                -reach(frame, members[at], &basis_of(at), -inward) + clearance
            } else {
                reach(frame, members[at], &basis_of(at), inward) + clearance
            };
            (from + inside * by, along)
        })
        .collect();
    let mut corners = Vec::new();
    for at in 0..count {
        let ((p, a), (q, b)) = (sides[at], sides[(at + 1) % count]);
        let cross = a.cross(b);
        if cross.abs() < NO_TURN {
            return Err(Finding::error(
                "two members that follow each other round this panel are parallel",
                "Name them in order round the opening.",
            )
            .at_field("kind.panel.between"));
        }
        corners.push(p + a * ((q - p).cross(b) / cross));
    }
    let outline = Outline::polygon(&corners.into_iter().map(|at| (at, 0)).collect::<Vec<_>>()).counter_clockwise();
    if outline.area() < 100.0 {
        return Err(Finding::error("the opening leaves no room for a panel", "Take a smaller clearance.")
            .at_field("kind.panel"));
    }
    let meets =
        members.iter().map(|&member| (member, if panel.on_top { frame.members[member].line_length() } else { 0.0 }));
    let told = told::panel(frame, &members, normal, middle, (panel.on_top, clearance));
    Ok(Laying {
        form: PlateForm::Panel,
        shape: lay_down(outline_shape(&outline), None),
        outline,
        basis,
        meets: meets.filter(|(_, length)| *length > 0.0).collect(),
        told,
    })
}

fn lug_numbers(review: &LugReview, reader: &mut Reader<'_>) -> Result<LugNumbers, Finding> {
    use crate::quantity::Dimension;
    let field = "kind.face.lifts";
    let plain = |reader: &mut Reader<'_>, name: &str, text: &str| {
        reader.value(&format!("{field}.{name}"), text, Dimension::NUMBER, "a plain number")
    };
    let numbers = LugNumbers {
        pin: reader.size(&format!("{field}.pin"), &review.pin, "a pin diameter")?,
        load: reader.value(&format!("{field}.load"), &review.load, Dimension::MASS, "a load")?,
        yield_strength: plain(reader, "yield_strength", &review.yield_strength)?,
        tensile_strength: plain(reader, "tensile_strength", &review.tensile_strength)?,
        design_factor: plain(reader, "design_factor", &review.design_factor)?,
    };
    if numbers.load <= 0.0
        || numbers.yield_strength <= 0.0
        || numbers.tensile_strength <= 0.0
        || numbers.design_factor < 1.0
    {
        return Err(Finding::error(
            "a lug is reviewed with a load and strengths above 0 and a design factor of 1 or more",
            "Correct the figure; ASME BTH-1 has 2 for category A and 3 for B.",
        )
        .at_field(field));
    }
    Ok(numbers)
}
