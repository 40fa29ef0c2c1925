//! Ends cut in their own way.

use crate::finding::Finding;
use crate::frame::cut_plane::{CutBy, CutPlane};
use crate::frame::end::{End, square_end};
use crate::frame::end_at::{self, EndAt};
use crate::frame::fields::Fields;
use crate::frame::fit::fit_to;
use crate::frame::model::{Frame, ends_of, members_named};
use crate::frame::plate::lay_cap;
use crate::quantity::MemberName;
use crate::space::Vector3;
use crate::work::Action;
use crate::work::frame::{CapPlate, EndAction, EndHow, PlaneCut, TrimTo};

use super::offers;
use super::verb::{FrameVerb, OnMembers, Site};

pub(super) const END: FrameVerb = FrameVerb::members(
    "end",
    "cuts ends",
    |action| if let Action::End(end) = action { Some((&end.of, "cut")) } else { None },
    read,
)
.offering(offers::end);

#[derive(Debug)]
struct EndNumbers {
    said: EndAction,
    how: EndCut,
}

#[derive(Debug)]
enum EndCut {
    /// To the faces of others, with a gap; grows where the end is made longer.
    To {
        to: TrimTo,
        gap: f64,
        grows: bool,
    },
    Cope {
        to: Vec<MemberName>,
        gap: f64,
    },
    Plane(PlaneCut, f64),
    Square(f64),
    Angle(f64, f64),
    Cap(CapPlate),
}

fn read(fields: &mut Fields<'_>, action: &Action) -> Option<Box<dyn OnMembers>> {
    let Action::End(end) = action else { return None };
    let how = match &end.how {
        EndHow::Trim(to) | EndHow::Extend(to) => {
            let grows = matches!(end.how, EndHow::Extend(_));
            let gap = fields.maybe(&format!("{}.gap", field_of(grows)), to.gap.as_ref(), "a gap");
            if grows && to.beyond {
                let both = Finding::error(
                    "an end that is made longer keeps all that lies before it",
                    "Trim it instead where only what lies beyond is to stay.",
                );
                return fields.take(Err(both.at_field("how.extend.beyond")));
            }
            EndCut::To { to: to.clone(), gap: gap?, grows }
        }
        EndHow::Cope(into) => {
            EndCut::Cope { to: into.to.clone(), gap: fields.maybe("how.cope.gap", into.gap.as_ref(), "a gap")? }
        }
        EndHow::Plane(plane) => {
            EndCut::Plane(plane.clone(), fields.maybe("how.plane.at", plane.at.as_ref(), "a place of the plane")?)
        }
        EndHow::Square(beyond) => {
            EndCut::Square(fields.maybe("how.square.by", beyond.by.as_ref(), "a length beyond the node")?)
        }
        EndHow::Angle(given) => {
            let angle = fields.angle("how.angle.angle", &given.angle, "an angle from square");
            let tilt = fields.maybe_angle("how.angle.tilt", given.tilt.as_ref(), "a tilt from square");
            let (angle, tilt) = (angle?, tilt?);
            if angle.abs() > 1.4 || tilt.abs() > 1.4 {
                let along = Finding::error(
                    "a cut of more than 80 deg from square runs along the member",
                    "Take a smaller angle.",
                );
                return fields.take(Err(along.at_field("how.angle")));
            }
            EndCut::Angle(angle, tilt)
        }
        EndHow::Cap(cap) => EndCut::Cap(cap.clone()),
    };
    Some(Box::new(EndNumbers { said: end.clone(), how }))
}

fn field_of(grows: bool) -> &'static str {
    if grows { "how.extend" } else { "how.trim" }
}

impl OnMembers for EndNumbers {
    fn work(&self, site: &mut Site<'_, '_>, name: &str) -> Result<(), Finding> {
        let chosen = members_named(site.frame, &self.said.of, "of")?;
        for end in ends_of(&chosen, self.said.at) {
            if let EndCut::Cap(cap) = &self.how {
                let (mut context, reader) = site.plate();
                lay_cap(&mut context, name, end, cap, reader)?;
            } else {
                self.cut(site.frame, end)?;
            }
        }
        Ok(())
    }
}

impl EndNumbers {
    fn cut(&self, frame: &mut Frame, end: EndAt) -> Result<(), Finding> {
        let which = end.which.at();
        match &self.how {
            EndCut::To { to, gap, grows } => {
                let others = members_named(frame, &to.to, &format!("{}.to", field_of(*grows)))?;
                let place = frame.members[end.member].basis(end.which).origin;
                let (end, which) = kept_side(end, to.beyond);
                let mut made = End::default();
                for other in others.into_iter().filter(|other| *other != end.member) {
                    let cut = end_at::cut_to(&frame.members, end, other, place, *gap, to.far)?;
                    made.planes.extend(cut.planes);
                    made.copes.extend(cut.copes);
                }
                let own = &mut frame.members[end.member].ends[which];
                if *grows {
                    own.planes.clear();
                    own.copes.clear();
                }
                own.planes.extend(made.planes);
                own.copes.extend(made.copes);
            }
            EndCut::Cope { to, gap } => {
                let others = members_named(frame, to, "how.cope.to")?;
                let place = frame.members[end.member].basis(end.which).origin;
                let mut made = End::default();
                for other in others.into_iter().filter(|other| *other != end.member) {
                    let cut = fit_to(&frame.members, end, other, place, *gap)?;
                    made.planes.extend(cut.planes);
                    made.copes.extend(cut.copes);
                    made.cutouts.extend(cut.cutouts);
                }
                frame.members[end.member].ends[which] = made;
            }
            EndCut::Plane(plane, at) => {
                let (end, which) = kept_side(end, plane.beyond);
                let normal = plane.axis.unit();
                let member = &frame.members[end.member];
                let outward = end_at::inward(member, end.which).dot(normal) < 0.0;
                let (normal, level) = if outward { (normal, *at) } else { (-normal, -at) };
                let cut = end_at::cut_by(member, end.which, normal, level, CutBy::Plane, None)?;
                let own = &mut frame.members[end.member].ends[which];
                if plane.grows {
                    *own = End { planes: vec![cut], ..End::default() };
                } else {
                    own.planes.push(cut);
                }
            }
            EndCut::Square(by) => frame.members[end.member].ends[which] = square_end(end.which, *by),
            EndCut::Angle(angle, tilt) => {
                let way = end.which.way();
                let normal = Vector3::new(angle.tan(), tilt.tan(), way).unit();
                let cut = CutPlane { normal, level: 0.0, by: CutBy::Angle, to: Vec::new() };
                frame.members[end.member].ends[which] = End { planes: vec![cut], ..End::default() };
            }
            // Laid by the plates.
            EndCut::Cap(_) => {}
        }
        Ok(())
    }
}

/// The end that is cut where an end's near side is kept, or the side beyond: then it is the other one.
fn kept_side(end: EndAt, beyond: bool) -> (EndAt, usize) {
    let which = if beyond { end.which.other() } else { end.which };
    (EndAt { which, ..end }, which.at())
}
