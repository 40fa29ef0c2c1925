//! Runs blocks: where the head goes, with the tool on or off, and when.

use std::collections::BTreeMap;

use steelk_core::patience;
use steelk_core::plane::{Point, Segment, Vector};
use steelk_core::quantity::tolerance::{MODELLING_TOLERANCE, ROUNDING};
use steelk_core::stock::{Cutter, CutterRow};

use crate::parse::{Block, ParseError, parse};
use crate::timing::times;

/// What the machine is, whatever a program says of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Machine {
    /// Its name.
    pub name: String,
    /// Codes of its macros: tool on, tool off, centre mark.
    pub on: u32,
    /// Tool off.
    pub off: u32,
    /// Centre mark.
    pub mark: u32,
    /// Width of its cut in this sheet, mm.
    pub kerf: f64,
    /// Speed with the tool off, mm/min.
    pub rapid: f64,
    /// Acceleration, mm/s2.
    pub acceleration: f64,
    /// Time of a centre mark, s.
    pub mark_time: f64,
}

impl Machine {
    /// The machine of a shop's table.
    pub fn of(cutter: &Cutter, row: &CutterRow) -> Machine {
        // Tables are checked when they are read: every code is M and a number.
        let code = |text: &str| text.trim_start_matches('M').parse().unwrap_or(u32::MAX);
        Machine {
            name: cutter.name.clone(),
            on: code(&cutter.on.code),
            off: code(&cutter.off.code),
            mark: code(&cutter.mark.code),
            kerf: row.kerf,
            rapid: cutter.rapid,
            acceleration: cutter.acceleration,
            mark_time: cutter.mark_time,
        }
    }
}

/// What a move does.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum MoveKind {
    /// Tool off.
    Rapid,
    /// Tool on.
    Cut,
    /// The head stands: a pierce or a mark.
    Wait,
}

/// One move of the head, mm from the program's zero.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Move {
    /// What it does.
    pub kind: MoveKind,
    /// Its way; a point for a wait.
    pub way: Segment,
    /// Speed asked for, mm/s; of a wait its time, s.
    pub speed: f64,
    /// Line of the program.
    pub line: usize,
    /// Which cut it belongs to, counted from 0: a new one begins whenever the tool goes on.
    pub cut: usize,
    /// When it begins, s.
    pub start: f64,
    /// When it ends, s.
    pub end: f64,
}

/// A program as run.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Run {
    /// Moves in order.
    pub moves: Vec<Move>,
    /// Centre marks, with their lines.
    pub marks: Vec<(Point, usize)>,
    /// What the header says: the first word of each comment, and the rest.
    pub header: BTreeMap<String, String>,
    /// The comment that stands before each cut, such as `CUT BORE`.
    pub labels: Vec<String>,
    /// Whether it was written in inches.
    pub inches: bool,
    /// Whether it ends with M2 or M30.
    pub ended: bool,
    /// Time in all, s.
    pub seconds: f64,
}

impl Run {
    /// Moves with the tool on.
    pub fn cuts(&self) -> impl Iterator<Item = &Move> {
        self.moves.iter().filter(|one| one.kind == MoveKind::Cut)
    }
}

/// Why a program stops the machine.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum RunError {
    /// No program.
    #[error(transparent)]
    Parse(#[from] ParseError),
    /// Something the machine does not know or must not do.
    #[error("line {line}: {what}")]
    Line {
        /// Line number.
        line: usize,
        /// What is wrong.
        what: String,
    },
    /// More moves than are run.
    #[error("the program has more than {MOST_MOVES} moves")]
    Many,
}

/// The most moves that are run.
const MOST_MOVES: usize = 2_000_000;
/// Beyond this the head would leave any machine, mm.
const FURTHEST: f64 = 100_000.0;
/// Start and end of an arc may differ in radius by this, mm: twice the rounding of four decimals, and some.
const ARC_SLACK: f64 = 0.005;

#[derive(Clone, Copy, PartialEq)]
enum Motion {
    None,
    Rapid,
    Line,
    Clockwise,
    CounterClockwise,
}

struct Head {
    place: Point,
    motion: Motion,
    /// Millimetres in a unit of the program.
    unit: Option<f64>,
    absolute: bool,
    /// mm/s; none until a feed is given.
    feed: Option<f64>,
    on: bool,
    cut: usize,
}

/// Runs a program on a machine.
///
/// # Errors
/// [`RunError`] with the line at which the machine would stop.
pub fn run(bytes: &[u8], machine: &Machine) -> Result<Run, RunError> {
    let blocks = parse(bytes)?;
    let mut head = Head {
        place: Point::default(),
        motion: Motion::None,
        unit: None,
        absolute: true,
        feed: None,
        on: false,
        cut: 0,
    };
    let mut run = Run::default();
    let mut label = String::new();
    for block in &blocks {
        patience::check();
        if run.ended {
            break;
        }
        for comment in &block.comments {
            if block.words.is_empty() {
                let (word, rest) = comment.split_once(' ').unwrap_or((comment, ""));
                if matches!(word, "CUT" | "MARK") {
                    label = comment.clone();
                } else {
                    run.header.entry(word.to_string()).or_insert_with(|| rest.to_string());
                }
            }
        }
        step(block, machine, &mut head, &mut run, &label)?;
        if run.moves.len() > MOST_MOVES {
            return Err(RunError::Many);
        }
    }
    run.inches = head.unit == Some(25.4);
    times(&mut run.moves, machine);
    run.seconds = run.moves.last().map_or(0.0, |last| last.end);
    Ok(run)
}

fn step(block: &Block, machine: &Machine, head: &mut Head, run: &mut Run, label: &str) -> Result<(), RunError> {
    let line = block.line;
    let stop = |what: String| RunError::Line { line, what };
    let mut dwell = false;
    let mut macros: Vec<u32> = Vec::new();
    for word in &block.words {
        let whole = word.value.fract() == 0.0 && (0.0..=9999.0).contains(&word.value);
        match word.letter {
            'G' => match (word.value * 10.0).round() as i64 {
                0 => head.motion = Motion::Rapid,
                10 => head.motion = Motion::Line,
                20 => head.motion = Motion::Clockwise,
                30 => head.motion = Motion::CounterClockwise,
                40 => dwell = true,
                170 | 400 | 940 | 911 | 640 | 540 => {}
                200 => head.unit = Some(25.4),
                210 => head.unit = Some(1.0),
                900 => head.absolute = true,
                910 => head.absolute = false,
                _ => return Err(stop(format!("G{} is not known to this machine", word.value))),
            },
            'M' if whole => macros.push(word.value as u32),
            'F' => {
                let unit = head.unit.unwrap_or(1.0);
                if word.value <= 0.0 {
                    return Err(stop(format!("a feed of {} moves nothing", word.value)));
                }
                head.feed = Some(word.value * unit / 60.0);
            }
            'X' | 'Y' | 'I' | 'J' | 'P' | 'N' | 'S' => {}
            letter => return Err(stop(format!("{letter}{} is not known to this machine", word.value))),
        }
    }
    if dwell {
        let time = block.value('P').unwrap_or(0.0);
        if !(0.0..=36_000.0).contains(&time) {
            return Err(stop(format!("a wait of {time} s is outside 0 to 36000 s")));
        }
        wait(head, run, time, line);
    } else if block.words.iter().any(|word| "XYIJ".contains(word.letter)) {
        travel(block, machine, head, run)?;
    }
    for code in macros {
        if code == machine.on {
            if head.on {
                return Err(stop("the tool is turned on while it is on".into()));
            }
            head.on = true;
            head.cut = run.labels.len();
            run.labels.push(label.to_string());
        } else if code == machine.off {
            head.on = false;
        } else if code == machine.mark {
            if head.on {
                return Err(stop("a centre is marked while the tool is on".into()));
            }
            run.marks.push((head.place, line));
            wait(head, run, machine.mark_time, line);
        } else if code == 2 || code == 30 {
            if head.on {
                return Err(stop("the program ends with the tool on".into()));
            }
            run.ended = true;
        } else {
            return Err(stop(format!("M{code} is no macro of {}", machine.name)));
        }
    }
    Ok(())
}

fn wait(head: &Head, run: &mut Run, time: f64, line: usize) {
    let way = Segment::line(head.place, head.place);
    run.moves.push(Move { kind: MoveKind::Wait, way, speed: time, line, cut: head.cut, start: 0.0, end: 0.0 });
}

fn travel(block: &Block, machine: &Machine, head: &mut Head, run: &mut Run) -> Result<(), RunError> {
    let line = block.line;
    let stop = |what: String| RunError::Line { line, what };
    let Some(unit) = head.unit else {
        return Err(stop("the head is moved before G20 or G21 says in which unit".into()));
    };
    let along = |letter: char, here: f64| match (block.value(letter), head.absolute) {
        (None, _) => here,
        (Some(value), true) => value * unit,
        (Some(value), false) => here + value * unit,
    };
    let to = Point::new(along('X', head.place.x), along('Y', head.place.y));
    if to.x.abs() > FURTHEST || to.y.abs() > FURTHEST {
        return Err(stop(format!("the head is sent to {}, {} mm: beyond any machine", to.x, to.y)));
    }
    let from = head.place;
    let way = match head.motion {
        Motion::None => return Err(stop("the head is moved before G0, G1, G2 or G3 says how".into())),
        Motion::Rapid | Motion::Line => Segment::line(from, to),
        Motion::Clockwise | Motion::CounterClockwise => {
            let arm = |letter: char| block.value(letter).unwrap_or(0.0) * unit;
            arc(from, to, Vector::new(arm('I'), arm('J')), head.motion == Motion::CounterClockwise).map_err(stop)?
        }
    };
    let (kind, speed) = if head.motion == Motion::Rapid {
        if head.on {
            return Err(stop("a rapid move with the tool on".into()));
        }
        (MoveKind::Rapid, machine.rapid / 60.0)
    } else {
        let Some(feed) = head.feed else { return Err(stop("the head is moved before F gives a feed".into())) };
        (if head.on { MoveKind::Cut } else { MoveKind::Rapid }, feed)
    };
    head.place = to;
    // A whole turn has no bulge: two halves.
    let halves = if !way.is_line() && from.distance(to) < ROUNDING {
        whole_turn(from, block, unit, way.bulge)
    } else {
        vec![way]
    };
    for way in halves {
        run.moves.push(Move { kind, way, speed, line, cut: head.cut, start: 0.0, end: 0.0 });
    }
    Ok(())
}

fn arc(from: Point, to: Point, arm: Vector, left: bool) -> Result<Segment, String> {
    let centre = from + arm;
    let (one, two) = (arm.length(), centre.distance(to));
    if one < MODELLING_TOLERANCE {
        return Err("an arc without a centre: I and J are 0 or missing".into());
    }
    if (one - two).abs() > ARC_SLACK {
        return Err(format!("the ends of an arc lie {one:.4} and {two:.4} mm from its centre"));
    }
    let (a, b) = (from - centre, to - centre);
    let turn = a.cross(b).atan2(a.dot(b));
    let sweep = if left { turn.rem_euclid(std::f64::consts::TAU) } else { -(-turn).rem_euclid(std::f64::consts::TAU) };
    let bulge = (sweep / 4.0).tan();
    if from.distance(to) < ROUNDING {
        return Ok(Segment { start: from, end: to, bulge: if left { 1.0 } else { -1.0 } });
    }
    Ok(Segment { start: from, end: to, bulge })
}

fn whole_turn(from: Point, block: &Block, unit: f64, way: f64) -> Vec<Segment> {
    let arm = |letter: char| block.value(letter).unwrap_or(0.0) * unit;
    let opposite = from + Vector::new(arm('I'), arm('J')) * 2.0;
    vec![
        Segment { start: from, end: opposite, bulge: way.signum() },
        Segment { start: opposite, end: from, bulge: way.signum() },
    ]
}
