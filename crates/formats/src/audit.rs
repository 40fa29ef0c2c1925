//! Reads back the files that are about to be given out, with our own readers, and compares them with the part: unit, size,
//! outlines, holes, bend lines; then folds what was read and compares every corner. Core cannot read files, so this stands
//! here; what it finds goes into the same list.

use steelk_core::audit::Audit;
use steelk_core::beside;
use steelk_core::brake::bend_rows;
use steelk_core::drawing::{Drawing, Layer, add_bend_table, blank_drawing};
use steelk_core::patience;
use steelk_core::plane::tidy::{Stroke, Tolerances, tidy};
use steelk_core::plane::{Moments, Outline, Point, Region, Segment, Slit, subtract};
use steelk_core::quantity::LengthUnit;
use steelk_core::sheet::fold::fold_at;
use steelk_core::sheet::partition::{DrawnStrip, partition};
use steelk_core::sheet::tree::grow;
use steelk_core::sheet::{Part, Strip};
use steelk_core::space::Body;
use steelk_core::toolpath::{Profile, profile};
use steelk_core::work::sheet::{Direction, Make};

use crate::dxf_file::Style;
use crate::dxf_read::{self, TextFound};
use crate::output::Heading;
use crate::strokes::Layers;
use crate::{dxf_file, step, step_read, svg, svg_read};

/// The blank as the cutter reads it from its DXF file.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct AsRead {
    /// Unit of the file, in words.
    pub unit: String,
    /// Size, mm.
    pub width: f64,
    /// Size, mm.
    pub height: f64,
    /// Closed contours within the outside.
    pub holes: usize,
    /// Bends, in the order of their marks.
    pub bends: Vec<BendRead>,
    /// What is cut.
    pub region: Region,
    /// What is cut along once: tears beside bends.
    pub slits: Vec<Segment>,
}

/// A bend as it is read.
#[derive(Clone, Debug, PartialEq)]
pub struct BendRead {
    /// Its mark: `B1`.
    pub mark: String,
    /// Which way.
    pub direction: Direction,
    /// Angle from flat, degrees.
    pub angle: f64,
    /// Inside radius, mm.
    pub radius: f64,
    /// Bend allowance, mm, from the table under the drawing.
    pub allowance: f64,
    /// Its lines, mm.
    pub lines: Vec<Segment>,
}

/// Gaps up to this are closed, mm: what is written has ten digits.
const GAP: f64 = 1e-4;
/// Half the width of what is taken along a slit, mm.
const FILM: f64 = 5e-5;
/// Figures of a file agree within this, mm.
const NEAR: f64 = 1e-4;
/// So many strokes are read back with every file; larger ones are read back by size and count alone.
const MOST_FOLDED: usize = 20_000;

fn only(layer: Layer) -> Layers {
    let chosen = Layer::ALL.iter().map(|own| (own.name().to_string(), *own == layer)).collect();
    Layers { chosen }
}

/// Reads a blank's DXF.
///
/// # Errors
/// In words: the file cannot be read, nothing closes, a bend's text has no numbers.
pub fn read_blank(bytes: &[u8]) -> Result<AsRead, String> {
    let layers = [Layer::Cut, Layer::BendUp, Layer::BendDown].map(only);
    let [cut, up, down] = dxf_read::read_each(bytes, layers.each_ref()).map_err(|fault| fault.to_string())?;
    let tolerances = Tolerances { gap: GAP, ..Tolerances::default() };
    let tidied = tidy(&cut.strokes, tolerances).map_err(|fault| fault.to_string())?;
    let (region, slits) = (tidied.region, tidied.open);
    let mut read = AsRead {
        unit: cut.notes.first().cloned().unwrap_or_default(),
        width: region.extents().width(),
        height: region.extents().height(),
        holes: region.holes.len(),
        bends: bends_of(&cut.texts)?,
        region,
        slits,
    };
    for (layer, direction, lines) in [(Layer::BendUp, Direction::Up, up), (Layer::BendDown, Direction::Down, down)] {
        for stroke in lines.strokes {
            patience::check();
            let Stroke::Segment(line) = stroke else { continue };
            // A line belongs to the bend of its direction whose text lies nearest to it, on the line.
            let own = cut
                .texts
                .iter()
                .filter(|text| text.layer == Layer::Text.name() && is_bend(&text.value))
                .filter_map(|text| Some((off_line(&line, text.place), text.value.split(' ').next()?)))
                .filter(|(_, mark)| read.bends.iter().any(|bend| bend.mark == *mark && bend.direction == direction))
                .min_by(|one, two| one.0.total_cmp(&two.0));
            let Some((_, mark)) = own else {
                return Err(format!("a line of {} has no text that says what it is", layer.name()));
            };
            if let Some(bend) = read.bends.iter_mut().find(|bend| bend.mark == mark) {
                bend.lines.push(line);
            }
        }
    }
    Ok(read)
}

/// How far a place lies off a line, mostly square to it: stretches of one bend share its line.
fn off_line(line: &Segment, place: Point) -> f64 {
    let along = (line.end - line.start).unit();
    1e3 * along.cross(place - line.start).abs() + line.distance_to(place)
}

/// Whether a text stands on a bend line: `B1 up 90 deg R3`.
fn is_bend(text: &str) -> bool {
    let words: Vec<&str> = text.split(' ').collect();
    words.len() == 5
        && words[0].starts_with('B')
        && matches!(words[1], "up" | "down")
        && words[3] == "deg"
        && words[4].starts_with('R')
}

fn bends_of(texts: &[TextFound]) -> Result<Vec<BendRead>, String> {
    let number = |text: &str, of: &str| text.parse::<f64>().map_err(|_| format!("\"{of}\" has no number in {text}"));
    let mut bends = Vec::new();
    for text in texts.iter().filter(|text| text.layer == Layer::Text.name() && is_bend(&text.value)) {
        let words: Vec<&str> = text.value.split(' ').collect();
        // The table's row begins with the mark and says `BA 4.712 mm`.
        let row = texts.iter().find(|row| row.value.starts_with(&format!("{}  ", words[0])));
        let allowance = match row.and_then(|row| row.value.split("BA ").nth(1)) {
            Some(rest) => number(rest.split(' ').next().unwrap_or_default(), rest)?,
            None => f64::NAN,
        };
        bends.push(BendRead {
            mark: words[0].to_string(),
            direction: if words[1] == "up" { Direction::Up } else { Direction::Down },
            angle: number(words[2], &text.value)?,
            radius: number(words[4].trim_start_matches('R'), &text.value)?,
            allowance,
            lines: Vec::new(),
        });
    }
    Ok(bends)
}

/// Reads back what a part's files say of its blank, and compares. The part as the cutter reads it comes back as well; `None`
/// where nothing could be read.
pub fn read_back(part: &Part, die: Option<f64>) -> (Audit, Option<AsRead>) {
    let mut drawing = blank_drawing(part, "X", LengthUnit::Mm);
    if !part.flat.bends.is_empty() {
        add_bend_table(&mut drawing, &bend_rows(part, die, LengthUnit::Mm), &[], LengthUnit::Mm);
    }
    let profile = profile(part);
    let tears = profile.slits.iter().map(Slit::length).sum();
    let wanted = cut_of(profile);
    let (read, svg) = beside::both(|| read_dxf(part, &drawing, &wanted, tears), || read_svg(&drawing, &wanted));
    match read {
        Ok((mut audit, read)) => {
            audit.extend(svg);
            (audit, Some(read))
        }
        // One reason is enough.
        Err(impossible) => (Audit { impossible: vec![impossible], ..Audit::default() }, None),
    }
}

/// What a blank's DXF says, against the part.
///
/// # Errors
/// In words: it cannot be written, or not be read.
fn read_dxf(part: &Part, drawing: &Drawing, wanted: &Region, tears: f64) -> Result<(Audit, AsRead), String> {
    let mut audit = Audit::default();
    let bytes = dxf_file::write(drawing, &Style::default())
        .map_err(|fault| format!("the blank's DXF cannot be written: {fault}"))?;
    let read = read_blank(&bytes).map_err(|fault| format!("the blank's DXF cannot be read back: {fault}"))?;
    outlines(&mut audit, "DXF", wanted, &read.region);
    against_panels(&mut audit, part, &read.region);
    audit.compare(
        "file_tears",
        "length of the tears",
        "mm",
        ("as built", tears),
        ("as the DXF file reads", read.slits.iter().map(Segment::length).sum()),
        (NEAR, "a file's figures have at least nine decimals"),
    );
    if read.unit != "read in millimetres" {
        audit.impossible.push(format!("the blank's DXF is not in millimetres: {}", read.unit));
    }
    bend_lines(&mut audit, part, &read);
    if drawing.strokes.len() <= MOST_FOLDED {
        folded(&mut audit, part, &read);
    } else {
        audit.left_out.push(format!("folding what the DXF says: {} strokes", drawing.strokes.len()));
    }
    Ok((audit, read))
}

/// So many faces are written as STEP and read back with every audit.
const MOST_FACES: usize = 20_000;

/// Reads back what a STEP file says of solids: each closed, of the same volume, surface, centre and size.
pub fn read_solids(solids: &[(String, Body)], what: &str) -> Audit {
    let mut audit = Audit::default();
    if solids.iter().map(|(_, body)| body.faces.len()).sum::<usize>() > MOST_FACES {
        audit.left_out.push(format!("the STEP file read back: more than {MOST_FACES} faces"));
        return audit;
    }
    let read = match step_read::read(&step::write_all(solids, what, what, &Heading::default())) {
        Ok(read) => read,
        Err(fault) => {
            audit.impossible.push(format!("the STEP file cannot be read back: {fault}"));
            return audit;
        }
    };
    let mut say = |check: &str, what: String, unit: &str, a: f64, b: f64, tolerance: f64| {
        let because = "a STEP file's figures have ten decimals, its directions too, over the length of a piece";
        audit.compare(check, what, unit, ("as built", a), ("as the STEP file reads", b), (tolerance, because));
    };
    say("step_solids", "number of solids".into(), "", solids.len() as f64, read.len() as f64, 0.0);
    let mut open = Vec::new();
    for ((name, body), (_, found)) in solids.iter().zip(&read) {
        if !found.is_closed() {
            open.push(name.clone());
        }
        let (own, other) = (body.mass(), found.mass());
        let size = body.extents().size();
        let near = 1e-5 + 1e-7 * size.length();
        say("step_volume", format!("volume of {name}"), "mm3", own.volume, other.volume, 1e-7 * own.volume + 1e-3);
        say("step_area", format!("surface of {name}"), "mm2", own.area, other.area, 1e-7 * own.area + 1e-3);
        let apart = own.centre.distance(other.centre);
        say("step_centre", format!("centre of gravity of {name}, apart"), "mm", 0.0, apart, near);
        let read = found.extents().size();
        say("step_size", format!("size of {name}, apart"), "mm", 0.0, (size - read).length(), near);
    }
    audit.impossible.extend(open.into_iter().map(|name| format!("{name} does not close in the STEP file")));
    audit
}

/// What of a part is cut through, as one region.
fn cut_of(profile: Profile) -> Region {
    Region { outer: profile.outer, holes: profile.cut.into_iter().map(|hole| hole.outline).collect() }
}

fn outlines(audit: &mut Audit, file: &str, wanted: &Region, found: &Region) {
    // Where an SVG's page begins is its own: both are told from the middle of their boxes.
    let middle = |region: &Region| {
        let centre = region.extents().centre();
        (centre.x, centre.y)
    };
    let (one, two) = (Moments::of_region(wanted, middle(wanted)), Moments::of_region(found, middle(found)));
    let (size, other) = (wanted.extents(), found.extents());
    let reach = size.width().max(size.height());
    let film = NEAR * wanted.perimeter() + 1e-6;
    let read = format!("as the {file} file reads");
    let mut say = |check: &str, what: &str, unit: &str, a: f64, b: f64, tolerance: f64| {
        let because = "a file's figures have at least nine decimals";
        audit.compare(check, format!("blank's {what}"), unit, ("as built", a), (&read, b), (tolerance, because));
    };
    say("file_width", "width", "mm", size.width(), other.width(), NEAR);
    say("file_height", "height", "mm", size.height(), other.height(), NEAR);
    say("file_contours", "closed contours", "", 1.0 + wanted.holes.len() as f64, 1.0 + found.holes.len() as f64, 0.0);
    say("file_area", "area", "mm2", one.area, two.area, film);
    say("file_first_x", "first moment across", "mm3", one.x, two.x, film * reach);
    say("file_first_y", "first moment up", "mm3", one.y, two.y, film * reach);
    say("file_second_xy", "mixed second moment", "mm4", one.xy, two.xy, film * reach * reach);
    say("file_second_x", "second moment across", "mm4", one.xx, two.xx, film * reach * reach);
}

/// What was read against the panels and strips that fold, where they lie: the blank that was written may itself be wrong.
fn against_panels(audit: &mut Audit, part: &Part, found: &Region) {
    let middle = part.blank.extents().centre();
    let about = (middle.x, middle.y);
    let mut pieces = Moments::default();
    for node in &part.flat.nodes {
        pieces = pieces.plus(&Moments::of_region(&node.region, about), 1.0);
    }
    // What the cutter leaves to the drill press is closed in its file.
    for hole in part.flat.holes.iter().filter(|hole| hole.work.through && hole.work.make != Make::Cut) {
        patience::check();
        pieces = pieces.plus(&Moments::of_outline(&hole.outline, about), 1.0);
    }
    let read = Moments::of_region(found, about);
    let size = part.blank.extents();
    let reach = size.width().max(size.height());
    let film = NEAR * found.perimeter() + 1e-6;
    for (check, what, unit, one, two, tolerance) in [
        ("file_panels_area", "area", "mm2", pieces.area, read.area, film),
        ("file_panels_x", "first moment across", "mm3", pieces.x, read.x, film * reach),
        ("file_panels_y", "first moment up", "mm3", pieces.y, read.y, film * reach),
        ("file_panels_xy", "mixed second moment", "mm4", pieces.xy, read.xy, film * reach * reach),
    ] {
        audit.compare(
            check,
            format!("blank's {what}"),
            unit,
            ("as the sum of the panels and strips that fold", one),
            ("as the DXF file reads", two),
            (tolerance, "a file's figures have at least nine decimals"),
        );
    }
}

fn bend_lines(audit: &mut Audit, part: &Part, read: &AsRead) {
    let flat = &part.flat;
    let (built, file) = ("as built", "as the DXF file reads");
    let because = "angles are written with four decimals, lengths with ten";
    audit.compare(
        "file_bends",
        "number of bends",
        "",
        (built, flat.bends.len() as f64),
        (file, read.bends.len() as f64),
        (0.0, "a count"),
    );
    for (number, bend) in flat.bends.iter().enumerate() {
        let strip = flat.strip_of(bend);
        let Some(found) = read.bends.iter().find(|one| one.mark == format!("B{}", number + 1)) else {
            audit.impossible.push(format!("the bend {} is not in the blank's DXF", bend.name));
            continue;
        };
        let way = |direction: Direction| if direction == Direction::Up { 1.0 } else { -1.0 };
        let mut say = |check: &str, what: &str, unit: &str, a: f64, b: f64, tolerance: f64| {
            let what = format!("{what} of {}", bend.name);
            audit.compare(check, what, unit, (built, a), (file, b), (tolerance, because));
        };
        let signed = strip.angle.to_degrees() * way(strip.direction);
        say("file_bend_angle", "angle (up above zero)", "deg", signed, found.angle * way(found.direction), 1e-4);
        let spans = flat.stretches(bend);
        let own: f64 = spans.iter().map(|span| span.1 - span.0).sum();
        let theirs: f64 = found.lines.iter().map(Segment::length).sum();
        say("file_bend_length", "bend line's length", "mm", own, theirs, NEAR);
        // Where the line lies: the sum of its ends off the strip's middle line.
        let off: f64 = found
            .lines
            .iter()
            .flat_map(|line| [line.start, line.end])
            .map(|end| (strip.local(end).1 - strip.width / 2.0).abs())
            .sum();
        say("file_bend_place", "bend line's distance from the strip's middle", "mm", 0.0, off, NEAR);
    }
}

/// Folds what was read, as a shop would that has nothing but the file, and compares where every corner of every panel goes.
fn folded(audit: &mut Audit, part: &Part, read: &AsRead) {
    if read.bends.is_empty() {
        return;
    }
    let mut strips = Vec::new();
    for bend in &read.bends {
        for line in &bend.lines {
            patience::check();
            let along = (line.end - line.start).unit();
            let across = along.left();
            let width = bend.allowance;
            let strip = Strip {
                origin: line.start - across * (width / 2.0),
                along,
                across,
                length: line.length(),
                width,
                angle: bend.angle.to_radians(),
                radius: bend.radius,
                direction: bend.direction,
            };
            strips.push(DrawnStrip { name: bend.mark.clone(), strip });
        }
    }
    // A slit has no width; a film is taken where it runs, far below what is compared.
    let mut region = read.region.clone();
    for slit in &read.slits {
        let along = (slit.end - slit.start).unit();
        let corner = |at: Point, ahead: f64, aside: f64| (at + along * ahead + along.left() * aside, 0);
        let film = Outline::polygon(&[
            corner(slit.start, -FILM, -FILM),
            corner(slit.end, FILM, -FILM),
            corner(slit.end, FILM, FILM),
            corner(slit.start, -FILM, FILM),
        ]);
        let parts = subtract(&region, &film);
        let Some(largest) = parts.into_iter().max_by(|one, two| one.area().total_cmp(&two.area())) else { continue };
        region = largest;
    }
    let mut nodes = partition(&region, &strips);
    let root = &part.flat.nodes[0];
    let inside = inner_point(&root.region);
    let Some(home) = inside.and_then(|inside| nodes.iter().position(|node| node.region.contains(inside))) else {
        audit.left_out.push("folding what the DXF says: the base is not found in it".into());
        return;
    };
    nodes.swap(0, home);
    let Ok(tree) = grow(&nodes) else {
        // A part that is bent where cuts end on its tangent lines can be read in more than one way.
        audit
            .left_out
            .push("folding what the DXF says: its panels do not hang together by the bend lines alone".into());
        return;
    };
    let shop = fold_at(&nodes, &tree, part.flat.thickness, 1.0, &part.flat.pose);
    let (mut worst, mut where_, mut looked) = (0.0f64, String::new(), 0usize);
    for (at, node) in part.flat.nodes.iter().enumerate().filter(|(_, node)| node.is_panel()) {
        let Some(inside) = inner_point(&node.region) else { continue };
        let Some(there) = nodes.iter().position(|one| one.is_panel() && one.region.contains(inside)) else {
            continue;
        };
        for edge in &node.region.outer.edges {
            for z in [0.0, part.flat.thickness] {
                let (own, theirs) = (part.folded.apply(at, edge.start, z), shop.apply(there, edge.start, z));
                looked += 1;
                if own.distance(theirs) > worst {
                    (worst, where_) = (own.distance(theirs), node.name.clone());
                }
            }
        }
    }
    if looked == 0 {
        audit.left_out.push("folding what the DXF says: none of its panels is found again".into());
        return;
    }
    // The file says angles to 1e-4 deg and allowances to 1e-4 mm: what that makes at the far end of the part.
    let reach = part.blank.extents().width().hypot(part.blank.extents().height());
    let count = read.bends.len() as f64;
    let tolerance = 1e-3 + count * (reach * 0.5e-4f64.to_radians() + 1e-4);
    let what = if where_.is_empty() { "corners of the folded part".into() } else { format!("corners of {where_}") };
    audit.compare(
        "file_folded",
        what,
        "mm",
        ("as they fold here", 0.0),
        ("as they fold from the DXF file, furthest off", worst),
        (tolerance, "the file says angles to four decimals of a degree and allowances to four of a millimetre"),
    );
}

/// A point well within a region: the middle of its widest span across the middle of its box or near it.
fn inner_point(region: &Region) -> Option<Point> {
    let around = region.extents();
    for share in [0.5, 0.37, 0.61, 0.23, 0.81, 0.11, 0.93, 0.05, 0.97] {
        let y = around.low.y + around.height() * share;
        let mut best: Option<(f64, f64)> = None;
        let steps = 64;
        let mut from: Option<f64> = None;
        for step in 0..=steps {
            let x = around.low.x + around.width() * (f64::from(step) + 0.5) / f64::from(steps + 1);
            let inside = region.contains(Point::new(x, y));
            match (inside, from) {
                (true, None) => from = Some(x),
                (false, Some(start)) => {
                    best = best.filter(|known| known.1 - known.0 >= x - start).or(Some((start, x)));
                    from = None;
                }
                _ => {}
            }
        }
        if let Some(start) = from {
            best = best.filter(|known| known.1 - known.0 >= around.high.x - start).or(Some((start, around.high.x)));
        }
        if let Some((low, high)) = best {
            let point = Point::new((low + high) / 2.0, y);
            if region.contains(point) {
                return Some(point);
            }
        }
    }
    None
}

/// What a blank's SVG says, against what is cut.
fn read_svg(drawing: &Drawing, wanted: &Region) -> Audit {
    let mut audit = Audit::default();
    let text = svg::write(drawing, "X", &[], LengthUnit::Mm);
    let found =
        svg_read::read(text.as_bytes(), &only(Layer::Cut)).map_err(|fault| fault.to_string()).and_then(|read| {
            let tolerances = Tolerances { gap: GAP, ..Tolerances::default() };
            tidy(&read.strokes, tolerances).map_err(|fault| fault.to_string())
        });
    match found {
        Ok(tidied) => outlines(&mut audit, "SVG", wanted, &tidied.region),
        Err(fault) => audit.impossible.push(format!("the blank's SVG cannot be read back: {fault}")),
    }
    audit
}
