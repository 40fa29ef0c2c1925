//! Whether two blanks are one piece of the cut list: everything that the shop does to them, under every way in which one
//! can be laid on the other. Turned over is the same piece; a mirror image is its opposite hand.

use crate::plane::{Point, Segment, Vector};
use crate::work::sheet::{Direction, Face};

use super::{Part, Pressed};

/// How a piece compares with another.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Alike {
    /// The same piece, perhaps turned.
    Same,
    /// Its mirror image and not the same.
    Opposite,
    /// Another piece.
    Other,
}

/// How near two blanks must be to be one, mm: far below what a cutter holds.
const NEAR: f64 = 0.02;

/// Something of a blank at a place of it, from the blank's centroid.
#[derive(Clone, Debug, PartialEq)]
struct Mark {
    place: Vector,
    /// What it is, the same whichever side is up.
    what: String,
    /// On the upper face or upward (1), on the lower or downward (-1), the same from both (0).
    side: i8,
}

/// A blank as the shop sees it.
#[derive(Clone, Debug)]
pub struct BlankCut {
    stock: String,
    /// Sorted by how far from the centroid.
    marks: Vec<Mark>,
}

impl BlankCut {
    /// Of a part; `stock` is what it is made of in words that only alike ones share.
    pub fn of(part: &Part, stock: String) -> BlankCut {
        let flat = &part.flat;
        let region = &part.blank.region;
        let middle = region.centroid();
        let mut marks: Vec<Mark> = Vec::new();
        let mut add = |at: Point, what: String, side: i8| marks.push(Mark { place: at - middle, what, side });
        for (which, outline) in region.outlines().enumerate() {
            for (edge, _) in outline.segments() {
                add(edge.at(0.5), format!("{} {}", if which == 0 { "edge" } else { "hole" }, edge_words(&edge)), 0);
            }
        }
        for hole in flat.holes.iter() {
            let work = &hole.work;
            // A plain hole through looks the same from both faces.
            let plain = work.through && work.head == 0.0;
            let side = if plain {
                0
            } else if work.face == Face::Top {
                1
            } else {
                -1
            };
            let words = work.words.replace(", from below", "").replace("from below", "");
            let what = format!("{words} {:?} {:.2} {:.2}", work.make, hole.outline.area(), work.removed);
            add(hole.centre, what, side);
        }
        for form in flat.forms.iter() {
            let what = format!("form {:?} {:.3}", form.shape, form.outline.area());
            add(form.centre, what, if form.up { 1 } else { -1 });
            if let Pressed::Louvre { .. } = form.shape {
                add(form.centre + form.ways[1], "louvre opens".into(), if form.up { 1 } else { -1 });
            }
        }
        for rib in flat.ribs.iter() {
            let what = format!("rib {:.3?} {:?} {:.3}", rib.sizes.legs, rib.sizes.is_round, rib.sizes.width);
            let up = flat.nodes[rib.strip].strip().is_some_and(|strip| strip.direction == Direction::Up);
            add(rib.centre, what, if up { 1 } else { -1 });
        }
        for bend in &flat.bends {
            let strip = flat.strip_of(bend);
            let what = format!("bend {:.3} {:.3} {:.3}", strip.angle, strip.radius, strip.length);
            let side = if strip.direction == Direction::Up { 1 } else { -1 };
            add(strip.place(strip.length / 2.0, strip.width / 2.0), what, side);
        }
        marks.sort_by(|one, two| two.place.length().total_cmp(&one.place.length()));
        BlankCut { stock, marks }
    }

    /// How this blank compares with another.
    pub fn alike(&self, other: &BlankCut) -> Alike {
        if self.stock != other.stock || self.marks.len() != other.marks.len() {
            return Alike::Other;
        }
        // Round its centroid a blank with nothing off it has no way of its own.
        let Some(first) = self.marks.iter().find(|mark| mark.place.length() > NEAR) else { return Alike::Same };
        let mut opposite = false;
        let far = first.place.length();
        for there in other.marks.iter().filter(|mark| mark.what == first.what) {
            if (there.place.length() - far).abs() > NEAR {
                continue;
            }
            for reflected in [false, true] {
                // The turn that brings the first mark onto that one, after a mirroring across x.
                let from = if reflected { Vector::new(first.place.x, -first.place.y) } else { first.place };
                let turn = from.cross(there.place).atan2(from.dot(there.place));
                for over in [false, true] {
                    if self.matches(other, turn, reflected, over) {
                        // Turned over in space a blank is mirrored in its plane and its faces change places.
                        if reflected == over {
                            return Alike::Same;
                        }
                        opposite = true;
                    }
                }
            }
        }
        if opposite { Alike::Opposite } else { Alike::Other }
    }

    fn matches(&self, other: &BlankCut, turn: f64, reflected: bool, over: bool) -> bool {
        let (sine, cosine) = turn.sin_cos();
        let mut used = vec![false; other.marks.len()];
        self.marks.iter().all(|mark| {
            let from = if reflected { Vector::new(mark.place.x, -mark.place.y) } else { mark.place };
            let to = Vector::new(from.x * cosine - from.y * sine, from.x * sine + from.y * cosine);
            let side = if over { -mark.side } else { mark.side };
            // Sorted by distance: only those about as far can be it.
            let far = mark.place.length();
            let begin = other.marks.partition_point(|one| one.place.length() > far + NEAR);
            let found = other.marks[begin..]
                .iter()
                .enumerate()
                .take_while(|(_, one)| one.place.length() >= far - NEAR)
                .find(|(at, one)| {
                    !used[begin + at] && one.side == side && one.what == mark.what && (one.place - to).length() < NEAR
                })
                .map(|(at, _)| begin + at);
            if let Some(at) = found {
                used[at] = true;
            }
            found.is_some()
        })
    }
}

fn edge_words(edge: &Segment) -> String {
    if edge.is_line() {
        format!("line {:.2}", edge.length())
    } else {
        format!("{} R{:.2} {:.2}", if edge.bulge > 0.0 { "out" } else { "in" }, edge.radius(), edge.length())
    }
}
