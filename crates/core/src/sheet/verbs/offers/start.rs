//! What a piece begins with: a base, a profile, a roll. Offered while nothing is laid down.

use crate::sheet::pointed::Pointing;
use crate::work::shape::{BaseShape, Circle, Obround, Rectangle, RunLeg, RunLine};
use crate::work::sheet::{
    LayDown, ProfileAction, ProfileSizes, RollAction, RollFace, RollSpan, TransitionAction, WidthFrom,
};
use crate::work::{Action, Group, Offer};

/// Begins with a base panel.
pub(in crate::sheet::verbs) fn lay_down(pointing: &Pointing<'_>) -> Vec<Offer> {
    if pointing.flat.is_some() {
        return Vec::new();
    }
    let about = |size: f64| pointing.about(size);
    let shapes = [
        (
            "Lay down a rectangle",
            &["shape.rectangle.width", "shape.rectangle.depth"][..],
            BaseShape::Rectangle(Rectangle { width: about(120.0), depth: about(80.0) }),
        ),
        ("Lay down a disc", &["shape.circle.diameter"], BaseShape::Circle(Circle { diameter: about(120.0) })),
        (
            "Lay down a strip with round ends",
            &["shape.obround.length", "shape.obround.width"],
            BaseShape::Obround(Obround { length: about(120.0), width: about(40.0) }),
        ),
    ];
    shapes
        .into_iter()
        .map(|(words, asks, shape)| {
            Offer::new(Group::LayDown, words, "base", Action::LayDown(LayDown { shape, by: None })).asking(asks)
        })
        .collect()
}

/// Begins with a channel seen from its end.
pub(in crate::sheet::verbs) fn profile(pointing: &Pointing<'_>) -> Vec<Offer> {
    if pointing.flat.is_some() {
        return Vec::new();
    }
    let leg = |length: f64, turned: bool| {
        RunLeg::Line(RunLine {
            name: None,
            length: pointing.about(length),
            turn: turned.then(|| "90 deg".into()),
            direction: None,
        })
    };
    let action = ProfileAction {
        legs: vec![leg(40.0, false), leg(100.0, true), leg(40.0, true)],
        sizes: ProfileSizes::Outside,
        width: pointing.about(200.0),
        width_from: WidthFrom::Side,
        stays: None,
        radius: None,
        method: None,
    };
    vec![Offer::new(Group::LayDown, "Lay down a channel by its profile", "profile", Action::Profile(action)).asking(&[
        "legs.0.line.length",
        "legs.1.line.length",
        "legs.2.line.length",
        "width",
    ])]
}

/// Begins with an arc or a tube.
pub(in crate::sheet::verbs) fn roll(pointing: &Pointing<'_>) -> Vec<Offer> {
    if pointing.flat.is_some() {
        return Vec::new();
    }
    let rolled = |span| {
        Action::Roll(RollAction {
            radius: pointing.about(100.0),
            to: RollFace::Inside,
            span,
            lead_in: None,
            lead_out: None,
            width: pointing.about(200.0),
            width_from: WidthFrom::Side,
            direction: Default::default(),
            method: None,
        })
    };
    vec![
        Offer::new(Group::LayDown, "Roll an arc", "roll", rolled(RollSpan::Angle("90 deg".into()))).asking(&[
            "radius",
            "span.angle",
            "width",
        ]),
        Offer::new(Group::LayDown, "Roll a tube", "tube", rolled(RollSpan::Tube(pointing.about(1.0))))
            .asking(&["radius", "width"]),
    ]
}

/// Begins with a hood between two rectangles, or a square to round.
pub(in crate::sheet::verbs) fn transition(pointing: &Pointing<'_>) -> Vec<Offer> {
    if pointing.flat.is_some() {
        return Vec::new();
    }
    let about = |size: f64| pointing.about(size);
    let laid = |words: &str, upper: BaseShape, asks: &[&str]| {
        let first = BaseShape::Rectangle(Rectangle { width: about(300.0), depth: about(240.0) });
        let action = TransitionAction::plan(first, upper, about(200.0));
        Offer::new(Group::LayDown, words, "hood", Action::Transition(Box::new(action))).asking(asks)
    };
    let first = ["lower.rectangle.width", "lower.rectangle.depth"];
    vec![
        laid(
            "Join two rectangles by flat panels",
            BaseShape::Rectangle(Rectangle { width: about(120.0), depth: about(100.0) }),
            &[first[0], first[1], "upper.rectangle.width", "upper.rectangle.depth", "height"],
        ),
        laid(
            "Join a rectangle to a round",
            BaseShape::Circle(Circle { diameter: about(120.0) }),
            &[first[0], first[1], "upper.circle.diameter", "height"],
        ),
    ]
}
