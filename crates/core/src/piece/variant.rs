//! Variants: the same piece with operations rested, call-outs changed, or of the opposite hand. A variant is derived and
//! never redrawn: it becomes a piece of its own whenever it is looked at.

use super::document::{Bending, DocumentError, Kind, Piece, Variant};

/// The most variants of a piece.
const MOST_VARIANTS: usize = 100;

impl Piece {
    /// A variant of this piece as a piece of its own, with no variants; `None` when none has this name.
    pub fn variant(&self, name: &str) -> Option<Piece> {
        let variant = self.variants.iter().find(|variant| variant.name == name)?;
        let mut piece = self.clone();
        piece.variants.clear();
        piece.mark = variant.own_mark(self);
        piece.title = match &variant.title {
            Some(title) => title.clone(),
            None => format!("{}, {}", self.title, variant.name),
        };
        piece.quantity = variant.quantity.unwrap_or(1);
        (piece.spares, piece.first_off) = (variant.spares, variant.first_off);
        piece.opposite_hand ^= variant.opposite_hand;
        if let Some(stock) = &variant.stock {
            piece.stock = stock.clone();
            // A bend table or a method that was measured on other stock says nothing of this one.
            if variant.bending.is_none() {
                piece.bending = Bending { radius: piece.bending.radius, ..Bending::default() };
            }
            if variant.cutting.is_none() {
                piece.cutting = None;
            }
        }
        if let Some(bending) = &variant.bending {
            piece.bending = bending.clone();
        }
        if let Some(cutting) = &variant.cutting {
            piece.cutting = Some(cutting.clone());
        }
        if variant.scale.is_some() {
            piece.scale.clone_from(&variant.scale);
        }
        piece.trial |= variant.trial;
        for operation in &mut piece.operations {
            operation.rested &= !variant.wakes.iter().any(|name| *name == operation.name);
            operation.rested |= variant.rest.iter().any(|name| *name == operation.name);
        }
        for callout in &mut piece.callouts {
            if let Some(value) = variant.set.get(&callout.name) {
                callout.value.clone_from(value);
            }
        }
        Some(piece)
    }

    /// Its mark and those of its variants.
    pub fn marks(&self) -> Vec<String> {
        std::iter::once(self.mark.clone()).chain(self.variants.iter().map(|variant| variant.own_mark(self))).collect()
    }

    /// This piece and each of its variants that is made, in order; trial pieces are in no list.
    pub fn made(&self) -> Vec<Piece> {
        let own = Piece { variants: Vec::new(), ..self.clone() };
        let made = |variant: &&Variant| !variant.trial && variant.quantity.is_some_and(|count| count > 0);
        let variants = self.variants.iter().filter(made);
        std::iter::once(own).chain(variants.filter_map(|variant| self.variant(&variant.name))).collect()
    }

    pub(super) fn check_variants(&self) -> Result<(), DocumentError> {
        if self.variants.len() > MOST_VARIANTS {
            let message = format!("{} variants; {MOST_VARIANTS} is the most", self.variants.len());
            return Err(DocumentError::new("variants", message));
        }
        for (at, variant) in self.variants.iter().enumerate() {
            let path = |field: &str| format!("variants[{at}].{field}");
            super::document::check_operation_name(&variant.name).map_err(|message| {
                DocumentError::new(path("name"), message.replace("operation name", "variant name"))
            })?;
            if self.variants[..at].iter().any(|other| other.name == variant.name) {
                let message = format!("the name {} is taken by another variant", variant.name);
                return Err(DocumentError::new(path("name"), message));
            }
            let mark = variant.own_mark(self);
            let twin = mark == self.mark || self.variants[..at].iter().any(|other| other.own_mark(self) == mark);
            if mark.trim().is_empty() || mark.chars().count() > 40 || mark.chars().any(char::is_control) || twin {
                let message = format!("\"{mark}\" is no mark of its own: 1 to 40 characters, no other variant's");
                return Err(DocumentError::new(path("mark"), message));
            }
            if variant.quantity.is_some_and(|count| count > 1_000_000) {
                return Err(DocumentError::new(path("quantity"), "a quantity is a whole number to 1000000"));
            }
            if let Some(table) = variant.bending.as_ref().and_then(|bending| bending.table.as_ref()) {
                table.check().map_err(|fault| DocumentError::new(path("bending.table"), fault.message))?;
            }
            if variant.scale.is_some() && self.kind == Kind::Frame {
                let message = "a frame's sections have no scale";
                return Err(DocumentError::new(path("scale"), message));
            }
            if variant.spares > 1_000_000 {
                return Err(DocumentError::new(path("spares"), "spares are a whole number to 1000000"));
            }
            if let Some(unknown) =
                variant.rest.iter().find(|name| !self.operations.iter().any(|one| one.name == **name))
            {
                let message = format!("it rests {unknown}, and there is no such operation");
                return Err(DocumentError::new(path("rest"), message));
            }
            if let Some(unknown) =
                variant.wakes.iter().find(|name| !self.operations.iter().any(|one| one.name == **name))
            {
                let message = format!("it wakes {unknown}, and there is no such operation");
                return Err(DocumentError::new(path("wakes"), message));
            }
            if let Some(unknown) = variant.set.keys().find(|name| !self.callouts.iter().any(|one| one.name == **name)) {
                let message = format!("it changes {unknown}, and there is no such call-out");
                return Err(DocumentError::new(path("set"), message));
            }
        }
        Ok(())
    }
}
