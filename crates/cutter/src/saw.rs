//! A stand-in for a saw and drill line: it reads a DSTV NC1 file, saws and drills a bar after it, and measures the piece that
//! comes off against what the cut list wants. It knows nothing of who wrote the file.

use steelk_core::patience;
use steelk_core::quantity::tolerance::NO_TURN;

use std::fmt;

/// The longest file that is read, bytes.
const LARGEST: usize = 1024 * 1024;
/// The letters of faces.
const FACES: &str = "vouh";
/// The most corners of an outline.
const MOST_CORNERS: usize = 20_000;
/// The most holes of a piece.
const MOST_HOLES: usize = 10_000;

/// Why a file cannot be run.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SawFault {
    /// Line of the file, from 1; 0 for the whole.
    pub line: usize,
    /// What is wrong.
    pub message: String,
}

impl fmt::Display for SawFault {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        if self.line == 0 { out.write_str(&self.message) } else { write!(out, "line {}: {}", self.line, self.message) }
    }
}

impl std::error::Error for SawFault {}

fn fault(line: usize, message: impl Into<String>) -> SawFault {
    SawFault { line, message: message.into() }
}

/// A hole to drill: face, place and diameter, mm.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct Drill {
    pub face: char,
    pub along: f64,
    pub up: f64,
    pub diameter: f64,
}

/// What a file says.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct SawJob {
    /// Piece mark.
    pub mark: String,
    /// Steel.
    pub steel: String,
    /// How many.
    pub quantity: usize,
    /// Section's name.
    pub section: String,
    /// Its letter.
    pub profile: String,
    /// Length, mm.
    pub length: f64,
    /// Height and width of the section, mm.
    pub height: f64,
    /// Width of its flange, mm.
    pub width: f64,
    /// Angles of the start and the finish seen from the front, radians from square.
    pub web: [f64; 2],
    /// And seen from above.
    pub flange: [f64; 2],
    /// Corner radius of the section, mm.
    pub radius: f64,
    /// Faces as they are cut: letter, corners along and up, mm.
    pub outlines: Vec<(char, Vec<(f64, f64)>)>,
    /// Holes.
    pub holes: Vec<Drill>,
}

/// Reads a file.
///
/// # Errors
/// [`SawFault`] with the line: no header, a number that is none or out of reach, a block that is not known, no end.
pub fn read(text: &str) -> Result<SawJob, SawFault> {
    if text.len() > LARGEST {
        return Err(fault(0, format!("the file has {} bytes; {LARGEST} at most are read", text.len())));
    }
    let mut lines =
        text.lines().enumerate().map(|(at, line)| (at + 1, line)).filter(|(_, line)| !line.starts_with("**"));
    match lines.next() {
        Some((_, line)) if line.trim() == "ST" => {}
        Some((at, line)) => return Err(fault(at, format!("a file starts with ST, and this with {:?}", short(line)))),
        None => return Err(fault(0, "the file is empty")),
    }
    let mut header = Vec::new();
    for _ in 0..24 {
        let (at, line) = lines.next().ok_or_else(|| fault(0, "the header ends before its 24 lines"))?;
        header.push((at, line.trim().to_string()));
    }
    let number = |index: usize| -> Result<f64, SawFault> {
        let (at, text) = &header[index];
        read_number(*at, text.split(',').next().unwrap_or_default())
    };
    let count = header[5]
        .1
        .parse::<usize>()
        .map_err(|_| fault(header[5].0, format!("{:?} is no count", short(&header[5].1))))?;
    let angle = |index: usize| number(index).map(f64::to_radians);
    let mut job = SawJob {
        mark: header[3].1.clone(),
        steel: header[4].1.clone(),
        quantity: count,
        section: header[6].1.clone(),
        profile: header[7].1.clone(),
        length: number(8)?,
        height: number(9)?,
        width: number(10)?,
        web: [angle(16)?, angle(17)?],
        flange: [angle(18)?, angle(19)?],
        radius: number(13)?,
        ..SawJob::default()
    };
    let mut block = String::new();
    let mut ended = false;
    for (at, line) in lines {
        patience::check();
        let trimmed = line.trim();
        if trimmed.is_empty() {
            continue;
        }
        if !line.starts_with(' ') {
            block = trimmed.to_string();
            match block.as_str() {
                "AK" | "BO" => {}
                "EN" => {
                    ended = true;
                    break;
                }
                other => return Err(fault(at, format!("the block {:?} is not one that this line runs", short(other)))),
            }
            continue;
        }
        let mut parts = trimmed.split_whitespace().peekable();
        let face = match parts.peek() {
            Some(&one) if one.len() == 1 && one.chars().all(char::is_alphabetic) => {
                parts.next();
                one.chars().next()
            }
            _ => None,
        };
        let numbers: Result<Vec<f64>, SawFault> =
            parts.map(|part| read_number(at, part.trim_end_matches(|c: char| c.is_alphabetic()))).collect();
        let numbers = numbers?;
        match block.as_str() {
            "AK" => {
                let [along, up, ..] = numbers[..] else { return Err(fault(at, "a corner has a place along and up")) };
                if let Some(face) = face {
                    if !FACES.contains(face) {
                        return Err(fault(at, format!("there is no face {face}: faces are v, o, u and h")));
                    }
                    job.outlines.push((face, Vec::new()));
                }
                let Some((_, corners)) = job.outlines.last_mut() else {
                    return Err(fault(at, "an outline needs its face: v, o, u or h"));
                };
                if corners.len() >= MOST_CORNERS {
                    return Err(fault(at, format!("more than {MOST_CORNERS} corners")));
                }
                corners.push((along, up));
            }
            "BO" => {
                let [along, up, diameter, ..] = numbers[..] else {
                    return Err(fault(at, "a hole has a place along, a place up and a diameter"));
                };
                let face = face
                    .filter(|face| FACES.contains(*face))
                    .ok_or_else(|| fault(at, "a hole needs its face: v, o, u or h"))?;
                if job.holes.len() >= MOST_HOLES {
                    return Err(fault(at, format!("more than {MOST_HOLES} holes")));
                }
                job.holes.push(Drill { face, along, up, diameter });
            }
            _ => return Err(fault(at, "numbers outside a block")),
        }
    }
    if !ended {
        return Err(fault(0, "the file has no EN"));
    }
    Ok(job)
}

fn short(text: &str) -> String {
    text.chars().take(24).collect()
}

fn read_number(line: usize, text: &str) -> Result<f64, SawFault> {
    text.trim()
        .parse::<f64>()
        .ok()
        .filter(|value| value.is_finite() && value.abs() < 1e6)
        .ok_or_else(|| fault(line, format!("{:?} is no number that a saw can run to", short(text))))
}

/// What the cut list wants of a piece; mm and radians.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct SawWanted {
    /// Long point to long point.
    pub length: f64,
    /// Angle of the start and of the finish from square, where they are one cut of the saw.
    pub angles: [Option<f64>; 2],
    /// Whether more than the saw cuts the start and the finish: notches, slots, outlines of other sections.
    pub coped: [bool; 2],
    /// Holes through walls, each wall counted: face, along, up, diameter.
    pub holes: Vec<Drill>,
    /// What is left of each face: letter and area in mm2.
    pub faces: Vec<(char, f64)>,
}

/// A piece as it came off the line.
#[derive(Clone, Debug, PartialEq)]
pub struct Sawn {
    /// Long point to long point, mm.
    pub length: f64,
    /// Angles of its ends from square, radians.
    pub angles: [f64; 2],
    /// Holes drilled.
    pub holes: usize,
    /// Minutes it took.
    pub minutes: f64,
    /// What is not as wanted, in words; empty when all is.
    pub faults: Vec<String>,
}

/// How near the measured length must be, mm.
const NEAR: f64 = 0.05;
/// And an angle, radians: 0.02 deg.
const NEAR_ANGLE: f64 = 3.5e-4;

/// Area within a closed run of corners, mm2.
fn area(corners: &[(f64, f64)]) -> f64 {
    let around = corners.iter().zip(corners.iter().cycle().skip(1));
    (around.map(|((x, y), (p, q))| x * q - p * y).sum::<f64>() / 2.0).abs()
}

/// The most that the outlines lean at an end where they come to a point, as a slope. A point is what several planes keep, so over
/// a corner the steepest of them counts and not their sum.
fn point_lean(job: &SawJob, finish: bool, far: f64) -> f64 {
    let ways = job.outlines.iter().flat_map(|(_, corners)| corners.windows(2)).filter_map(|way| {
        let ((x, y), (p, q)) = (way[0], way[1]);
        let tip = if finish { x.max(p) >= far - NEAR } else { x.min(p) <= far + NEAR };
        (tip && (q - y).abs() > NEAR).then(|| ((p - x) / (q - y)).abs())
    });
    ways.fold(0.0, f64::max)
}

/// Saws and drills a piece after its file and measures it.
pub fn run(job: &SawJob, wanted: &SawWanted) -> Sawn {
    let mut faults = Vec::new();
    // The cut plane leans by both angles; from square it stands at the angle of its normal to the bar.
    let from_square = |at: usize| {
        let (a, b) = (job.flange[at].tan(), job.web[at].tan());
        (1.0 / (1.0 + a * a + b * b).sqrt()).acos()
    };
    let angles = [from_square(0), from_square(1)];
    // Where a face is cut by the saw alone its slope must be the header's angle, or the file disagrees with itself. An end of
    // several planes is no cut of the saw: the header gives it no angle, and its outlines are what is cut.
    for (at, word) in ["start", "finish"].iter().enumerate() {
        if wanted.angles[at].is_none() && angles[at] > NEAR_ANGLE {
            faults.push(format!("its {word} is no single cut, and the header has {:.2} deg", angles[at].to_degrees()));
        }
    }
    for (letter, corners) in &job.outlines {
        let (told, tall) = if matches!(letter, 'v' | 'h') { (job.web, job.height) } else { (job.flange, job.width) };
        let mut corners = corners.clone();
        if corners.len() > 1 && corners.first() == corners.last() {
            corners.pop();
        } else {
            faults.push(format!("the outline of face {letter} does not end where it begins"));
        }
        let [(a, _), (b, _), (c, _), (d, _)] = corners[..] else { continue };
        for ((slope, angle), at) in [(d - a, told[0]), (b - c, told[1])].into_iter().zip([0, 1]) {
            if wanted.angles[at].is_none() || wanted.coped[at] {
                continue;
            }
            let which = ["start", "finish"][at];
            let lean = tall * angle.tan();
            // An angle has three decimals in the file: half of the last one leans the more the steeper the cut is.
            let digit = 0.0005f64.to_radians() * tall / angle.cos().powi(2);
            if (slope.abs() - lean.abs()).abs() > 2.0 * NEAR + digit {
                faults.push(format!(
                    "the {which} of face {letter} leans by {:.2} mm and its angle says {:.2} mm",
                    slope.abs(),
                    lean.abs()
                ));
            }
        }
    }
    // The bar is fed to its long point. Outlines are told to sharp corners, past a rounded one: by as much as an end leans
    // over that corner, which the header's angles say where a saw cuts it and the outlines themselves where it comes to a
    // point. A face that is not told may reach further by the lean over the section.
    let places = job.outlines.iter().flat_map(|(_, corners)| corners).map(|(along, _)| *along);
    let (first, last) = (places.clone().fold(f64::INFINITY, f64::min), places.fold(f64::NEG_INFINITY, f64::max));
    let reach = last - first;
    let lean = |across: f64, up: f64| -> f64 {
        (0..2).map(|at| across * job.flange[at].tan().abs() + up * job.web[at].tan().abs()).sum()
    };
    let plain = job.outlines.iter().all(|(_, corners)| corners.len() <= 5);
    let points = job.radius * (point_lean(job, false, first) + point_lean(job, true, last));
    let (short, long) = (reach - lean(job.radius, job.radius) - points, reach + lean(job.width, job.height));
    if !reach.is_finite() {
        faults.push("the file tells no face as it is cut".to_string());
    } else if job.length < short - NEAR || (plain && job.length > long + NEAR) {
        faults.push(format!("its faces are {reach:.2} mm long and the header says {:.2} mm", job.length));
    }
    for &(letter, wanted) in &wanted.faces {
        let Some((_, corners)) = job.outlines.iter().find(|(face, _)| *face == letter) else {
            faults.push(format!("face {letter} is not told"));
            continue;
        };
        let tall = if matches!(letter, 'v' | 'h') { job.height } else { job.width };
        let left = area(corners);
        if (left - wanted).abs() > NEAR * tall {
            faults.push(format!("face {letter} has {left:.1} mm2 left and should have {wanted:.1} mm2"));
        }
    }
    for hole in &job.holes {
        patience::check();
        let deep = if matches!(hole.face, 'v' | 'h') { job.height } else { job.width };
        let radius = hole.diameter / 2.0;
        if hole.diameter <= 0.0 || hole.along < radius - NEAR || hole.along > job.length - radius + NEAR {
            faults.push(format!("a hole of {:.2} mm at {:.2} mm runs out over the bar", hole.diameter, hole.along));
        } else if hole.up < radius - NEAR || hole.up > deep - radius + NEAR {
            faults.push(format!("a hole of {:.2} mm, {:.2} mm up, runs out over its face", hole.diameter, hole.up));
        }
    }
    if (job.length - wanted.length).abs() > NEAR {
        faults.push(format!("it is {:.2} mm long and should be {:.2} mm", job.length, wanted.length));
    }
    for (at, word) in ["start", "finish"].iter().enumerate() {
        let Some(wanted) = wanted.angles[at].map(f64::abs) else { continue };
        if (angles[at] - wanted).abs() > NEAR_ANGLE {
            faults.push(format!(
                "its {word} is cut at {:.2} deg and should be {:.2} deg",
                angles[at].to_degrees(),
                wanted.to_degrees()
            ));
        }
    }
    if job.holes.len() != wanted.holes.len() {
        faults.push(format!("{} walls are drilled and should be {}", job.holes.len(), wanted.holes.len()));
    }
    for hole in &wanted.holes {
        let near = |a: f64, b: f64| (a - b).abs() < NEAR;
        let found = job.holes.iter().any(|one| {
            one.face == hole.face
                && near(one.along, hole.along)
                && near(one.up, hole.up)
                && near(one.diameter, hole.diameter)
        });
        if !found {
            faults.push(format!(
                "face {} has no hole of {:.2} mm at {:.2} mm along and {:.2} mm up",
                hole.face, hole.diameter, hole.along, hole.up
            ));
        }
    }
    // Made-up rates of the stand-in: a cut a minute and a half, a turn of the saw half a minute, a wall 12 s, the feed 10 m/min.
    let turns = job.web.iter().chain(&job.flange).filter(|angle| angle.abs() > NO_TURN).count() as f64;
    let minutes = 3.0 + 0.5 * turns + 0.2 * job.holes.len() as f64 + job.length / 10_000.0;
    Sawn { length: job.length, angles, holes: job.holes.len(), minutes, faults }
}
