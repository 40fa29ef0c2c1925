//! The one visitor of what work cites: every expression and every name in any part of a document, without knowing the
//! verbs. It goes where the document is written out, and knows a text by its type.

use std::cell::RefCell;

use serde::de::DeserializeOwned;
use serde::ser::{self, Serialize, Serializer};
use serde_json::{Map, Value};

use crate::quantity::{Expr, is_called_name};

/// What a text is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Cites {
    /// An expression: it cites call-outs.
    Value,
    /// A name: it cites an operation, or what one made.
    Name,
}

/// A text that was come by.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Met<'a> {
    /// What it is.
    pub cites: Cites,
    /// The text.
    pub text: &'a str,
    /// Whether it stands in a plate's own work, where names are those of that plate and not of the frame.
    pub in_plate: bool,
}

/// Shows every text that cites.
pub fn each(part: &impl Serialize, mut see: impl FnMut(Met<'_>)) {
    let mut change = |met: Met<'_>| {
        see(met);
        None
    };
    let _ = part.serialize(Through { change: &RefCell::new(&mut change), in_plate: false });
}

/// The same part of a document with texts that cite changed: `change` gives the new text where there is one.
///
/// # Errors
/// In words, where what is written cannot be read again.
pub fn rewritten<T: Serialize + DeserializeOwned>(
    part: &T,
    mut change: impl FnMut(Met<'_>) -> Option<String>,
) -> Result<T, String> {
    let through = Through { change: &RefCell::new(&mut change), in_plate: false };
    let value = part.serialize(through).map_err(|fault| fault.to_string())?;
    serde_json::from_value(value).map_err(|fault| fault.to_string())
}

type Change<'a> = RefCell<&'a mut dyn FnMut(Met<'_>) -> Option<String>>;

/// Writes a value out as JSON and hands each text that cites through.
#[derive(Clone, Copy)]
struct Through<'a> {
    change: &'a Change<'a>,
    in_plate: bool,
}

type Out = Result<Value, serde_json::Error>;
const PLAIN: serde_json::value::Serializer = serde_json::value::Serializer;

impl<'a> Through<'a> {
    fn list(self) -> List<'a> {
        List { through: self, variant: None, items: Vec::new() }
    }

    fn table(self, called: &'static str) -> Table<'a> {
        Table { through: self, called, variant: None, key: String::new(), fields: Map::new() }
    }
}

fn under(variant: Option<&'static str>, value: Value) -> Value {
    match variant {
        Some(variant) => Value::Object(Map::from_iter([(variant.to_string(), value)])),
        None => value,
    }
}

impl<'a> Serializer for Through<'a> {
    type Ok = Value;
    type Error = serde_json::Error;
    type SerializeSeq = List<'a>;
    type SerializeTuple = List<'a>;
    type SerializeTupleStruct = List<'a>;
    type SerializeTupleVariant = List<'a>;
    type SerializeMap = Table<'a>;
    type SerializeStruct = Table<'a>;
    type SerializeStructVariant = Table<'a>;

    fn serialize_newtype_struct<T: Serialize + ?Sized>(self, called: &'static str, value: &T) -> Out {
        let cites = match called {
            Expr::CALLED => Cites::Value,
            _ if is_called_name(called) => Cites::Name,
            _ => return value.serialize(self),
        };
        Ok(match value.serialize(PLAIN)? {
            Value::String(text) => {
                let met = Met { cites, text: &text, in_plate: self.in_plate };
                Value::String((self.change.borrow_mut())(met).unwrap_or(text))
            }
            other => other,
        })
    }

    fn serialize_newtype_variant<T: Serialize + ?Sized>(
        self,
        _called: &'static str,
        _index: u32,
        variant: &'static str,
        value: &T,
    ) -> Out {
        Ok(under(Some(variant), value.serialize(self)?))
    }

    fn serialize_some<T: Serialize + ?Sized>(self, value: &T) -> Out {
        value.serialize(self)
    }

    fn serialize_seq(self, _count: Option<usize>) -> Result<List<'a>, serde_json::Error> {
        Ok(self.list())
    }

    fn serialize_tuple(self, _count: usize) -> Result<List<'a>, serde_json::Error> {
        Ok(self.list())
    }

    fn serialize_tuple_struct(self, _called: &'static str, _count: usize) -> Result<List<'a>, serde_json::Error> {
        Ok(self.list())
    }

    fn serialize_tuple_variant(
        self,
        _called: &'static str,
        _index: u32,
        variant: &'static str,
        _count: usize,
    ) -> Result<List<'a>, serde_json::Error> {
        Ok(List { variant: Some(variant), ..self.list() })
    }

    fn serialize_map(self, _count: Option<usize>) -> Result<Table<'a>, serde_json::Error> {
        Ok(self.table(""))
    }

    fn serialize_struct(self, called: &'static str, _count: usize) -> Result<Table<'a>, serde_json::Error> {
        Ok(self.table(called))
    }

    fn serialize_struct_variant(
        self,
        called: &'static str,
        _index: u32,
        variant: &'static str,
        _count: usize,
    ) -> Result<Table<'a>, serde_json::Error> {
        Ok(Table { variant: Some(variant), ..self.table(called) })
    }

    // What cites nothing is written as it is.

    fn serialize_bool(self, value: bool) -> Out {
        PLAIN.serialize_bool(value)
    }
    fn serialize_i8(self, value: i8) -> Out {
        PLAIN.serialize_i8(value)
    }
    fn serialize_i16(self, value: i16) -> Out {
        PLAIN.serialize_i16(value)
    }
    fn serialize_i32(self, value: i32) -> Out {
        PLAIN.serialize_i32(value)
    }
    fn serialize_i64(self, value: i64) -> Out {
        PLAIN.serialize_i64(value)
    }
    fn serialize_u8(self, value: u8) -> Out {
        PLAIN.serialize_u8(value)
    }
    fn serialize_u16(self, value: u16) -> Out {
        PLAIN.serialize_u16(value)
    }
    fn serialize_u32(self, value: u32) -> Out {
        PLAIN.serialize_u32(value)
    }
    fn serialize_u64(self, value: u64) -> Out {
        PLAIN.serialize_u64(value)
    }
    fn serialize_f32(self, value: f32) -> Out {
        PLAIN.serialize_f32(value)
    }
    fn serialize_f64(self, value: f64) -> Out {
        PLAIN.serialize_f64(value)
    }
    fn serialize_char(self, value: char) -> Out {
        PLAIN.serialize_char(value)
    }
    fn serialize_str(self, value: &str) -> Out {
        PLAIN.serialize_str(value)
    }
    fn serialize_bytes(self, value: &[u8]) -> Out {
        PLAIN.serialize_bytes(value)
    }
    fn serialize_none(self) -> Out {
        PLAIN.serialize_none()
    }
    fn serialize_unit(self) -> Out {
        PLAIN.serialize_unit()
    }
    fn serialize_unit_struct(self, called: &'static str) -> Out {
        PLAIN.serialize_unit_struct(called)
    }
    fn serialize_unit_variant(self, called: &'static str, index: u32, variant: &'static str) -> Out {
        PLAIN.serialize_unit_variant(called, index, variant)
    }
}

/// A list being written.
struct List<'a> {
    through: Through<'a>,
    variant: Option<&'static str>,
    items: Vec<Value>,
}

impl List<'_> {
    fn add<T: Serialize + ?Sized>(&mut self, value: &T) -> Result<(), serde_json::Error> {
        self.items.push(value.serialize(self.through)?);
        Ok(())
    }

    fn done(self) -> Out {
        Ok(under(self.variant, Value::Array(self.items)))
    }
}

macro_rules! lists {
    ($($kind:ident $add:ident)*) => {$(
        impl ser::$kind for List<'_> {
            type Ok = Value;
            type Error = serde_json::Error;
            fn $add<T: Serialize + ?Sized>(&mut self, value: &T) -> Result<(), serde_json::Error> {
                self.add(value)
            }
            fn end(self) -> Out {
                self.done()
            }
        }
    )*};
}

lists! {
    SerializeSeq serialize_element
    SerializeTuple serialize_element
    SerializeTupleStruct serialize_field
    SerializeTupleVariant serialize_field
}

/// A struct or a map being written.
struct Table<'a> {
    through: Through<'a>,
    called: &'static str,
    variant: Option<&'static str>,
    key: String,
    fields: Map<String, Value>,
}

impl Table<'_> {
    fn add<T: Serialize + ?Sized>(&mut self, key: &str, value: &T) -> Result<(), serde_json::Error> {
        let of_plate = self.called == "PlateAction" && key == "work";
        let through = Through { in_plate: self.through.in_plate || of_plate, ..self.through };
        self.fields.insert(key.to_string(), value.serialize(through)?);
        Ok(())
    }

    fn done(self) -> Out {
        Ok(under(self.variant, Value::Object(self.fields)))
    }
}

macro_rules! structs {
    ($($kind:ident)*) => {$(
        impl ser::$kind for Table<'_> {
            type Ok = Value;
            type Error = serde_json::Error;
            fn serialize_field<T: Serialize + ?Sized>(
                &mut self,
                key: &'static str,
                value: &T,
            ) -> Result<(), serde_json::Error> {
                self.add(key, value)
            }
            fn end(self) -> Out {
                self.done()
            }
        }
    )*};
}

structs! { SerializeStruct SerializeStructVariant }

impl ser::SerializeMap for Table<'_> {
    type Ok = Value;
    type Error = serde_json::Error;

    fn serialize_key<T: Serialize + ?Sized>(&mut self, key: &T) -> Result<(), serde_json::Error> {
        // A key may cite as well: what one flange of several has of its own stands under its edge's name.
        self.key = match key.serialize(self.through)? {
            Value::String(text) => text,
            other => other.to_string(),
        };
        Ok(())
    }

    fn serialize_value<T: Serialize + ?Sized>(&mut self, value: &T) -> Result<(), serde_json::Error> {
        let key = std::mem::take(&mut self.key);
        self.add(&key, value)
    }

    fn end(self) -> Out {
        self.done()
    }
}
