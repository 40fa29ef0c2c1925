//! Fields of one operation of frame work, read so that every fault of it is told and not the first alone.

use crate::finding::Finding;
use crate::quantity::{Expr, Names, NodeName};
use crate::sheet::ResolvedValue;
use crate::space::{Point3, Vector3};
use crate::work::frame::FramePlace;

use super::reader::{Reader, node};
use super::skeleton::Skeleton;

/// Reads the fields of one operation; what is wrong with any is kept until all are read.
pub(super) struct Fields<'a> {
    reader: Reader<'a>,
    faults: Vec<Finding>,
}

impl<'a> Fields<'a> {
    /// For one operation.
    pub fn new(names: &'a Names) -> Self {
        Fields { reader: Reader::new(names), faults: Vec::new() }
    }

    /// Names that may be cited.
    pub fn names(&self) -> &'a Names {
        self.reader.names
    }

    /// What each good field came to, and what was wrong with the others.
    pub fn done(self) -> (Vec<ResolvedValue>, Vec<Finding>) {
        (self.reader.found, self.faults)
    }

    /// What was found, or `None` with its fault kept.
    pub fn take<T>(&mut self, found: Result<T, Finding>) -> Option<T> {
        found.map_err(|fault| self.faults.push(fault)).ok()
    }

    /// A length, mm.
    pub fn length(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        let found = self.reader.length(field, text, wanted);
        self.take(found)
    }

    /// A length that may be left out: then 0 mm.
    pub fn maybe(&mut self, field: &str, text: Option<&Expr>, wanted: &str) -> Option<f64> {
        let found = self.reader.maybe(field, text, wanted);
        self.take(found)
    }

    /// A length above zero, mm.
    pub fn size(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        let found = self.reader.size(field, text, wanted);
        self.take(found)
    }

    /// A length above zero that may be left out, mm.
    pub fn maybe_size(&mut self, field: &str, text: Option<&Expr>, wanted: &str) -> Option<Option<f64>> {
        text.map_or(Some(None), |text| self.size(field, text, wanted).map(Some))
    }

    /// An angle, radians.
    pub fn angle(&mut self, field: &str, text: &str, wanted: &str) -> Option<f64> {
        let found = self.reader.angle(field, text, wanted);
        self.take(found)
    }

    /// An angle that may be left out: then 0.
    pub fn maybe_angle(&mut self, field: &str, text: Option<&Expr>, wanted: &str) -> Option<f64> {
        text.map_or(Some(0.0), |text| self.angle(field, text, wanted))
    }

    /// A whole number from 1 to `most`.
    pub fn count(&mut self, field: &str, text: &str, wanted: &str, most: usize) -> Option<usize> {
        let found = self.reader.count(field, text, wanted, most);
        self.take(found)
    }

    /// Three lengths, each 0 where left out; every one that is bad is told.
    pub fn vector(&mut self, field: &str, [x, y, z]: [Option<&Expr>; 3]) -> Option<Vector3> {
        let mut along =
            |axis: &str, text| self.maybe(&format!("{field}.{axis}"), text, &format!("a length along {axis}"));
        let (x, y, z) = (along("x", x), along("y", y), along("z", z));
        Some(Vector3::new(x?, y?, z?))
    }

    /// A place, its node looked up later.
    pub fn place(&mut self, field: &str, place: &FramePlace) -> Option<PlaceNumbers> {
        let by = self.vector(field, [place.x.as_ref(), place.y.as_ref(), place.z.as_ref()])?;
        Some(PlaceNumbers { from: place.from.clone(), by, field: format!("{field}.from") })
    }
}

/// A place so far from a node, or from the origin.
#[derive(Clone, Debug)]
pub(super) struct PlaceNumbers {
    from: Option<NodeName>,
    by: Vector3,
    field: String,
}

impl PlaceNumbers {
    /// Where it is.
    ///
    /// # Errors
    /// A node that is not there.
    pub fn on(&self, skeleton: &Skeleton) -> Result<Point3, Finding> {
        let from = self.from.as_ref().map_or(Ok(Point3::default()), |name| node(skeleton, name, &self.field))?;
        Ok(from + self.by)
    }
}
