//! The texts of a document that mean something: expressions, and names of what other work made.
//!
//! Both are plain strings on the wire. As types they are told apart by whoever goes through a document: what a name
//! cites and what an expression cites are found, and renamed, without knowing the verbs (`work::cite`).

use std::fmt;
use std::marker::PhantomData;
use std::ops::Deref;

use serde::{Deserialize, Deserializer, Serialize, Serializer};
use utoipa::openapi::schema::{ObjectBuilder, Type};
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

/// A value as a person writes it: `A - 2*T`, `2 1/2 in`. What it comes to is told by [`super::Names::read`].
#[derive(Clone, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
pub struct Expr(String);

/// The name of something that work made.
///
/// Written `PART:OPERATION.OWN`: the part (only where several pieces are put together), the operation that made it, and
/// what of that operation's it is. A list of lines may hold patterns: `leg*`.
#[derive(Clone, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Name<K>(String, PhantomData<K>);

/// What a name is of.
pub trait NameOf: 'static {
    /// What the type is called on the wire's description and by whoever goes through a document.
    const CALLED: &'static str;
    /// What it is, for the description.
    const WORDS: &'static str;
}

macro_rules! names {
    ($($kind:ident $alias:ident $called:literal $words:literal)*) => {$(
        #[doc = concat!("Marks a name as one of: ", $words)]
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
        pub enum $kind {}
        impl NameOf for $kind {
            const CALLED: &'static str = $called;
            const WORDS: &'static str = $words;
        }
        #[doc = $words]
        pub type $alias = Name<$kind>;
    )*
    /// Whether a type on the wire is a name.
    pub(crate) fn is_called_name(called: &str) -> bool {
        [$($called),*].contains(&called)
    }};
}

names! {
    OfOperation OperationName "OperationName" "The name of an operation."
    OfPanel PanelName "PanelName" "The name of a panel: `base`, `lip.web`."
    OfEdge EdgeName "EdgeName" "The name of a panel's edge, or of a line of a bend on it: `base.left`, `lip.mould-outside`."
    OfBend BendName "BendName" "The name of a bend."
    OfHole HoleName "HoleName" "The name of a hole, or of an operation that made several: `bore`, `bolt.3`."
    OfFeature FeatureName "FeatureName" "The name of a face, an edge, a corner, a line or an axis: `lid.bottom`, `wall.end/left`."
    OfNode NodeName "NodeName" "The name of a node of a frame: `peak`, `path.2`."
    OfLine LineName "LineName" "The name of a centre line, of all lines of an operation, or a pattern of names: `table.leg*`."
    OfMember MemberName "MemberName" "The name of a member, a plate, a group of them, or a pattern of names; of its wall or end after a dot."
}

impl Expr {
    /// What the type is called by whoever goes through a document.
    pub(crate) const CALLED: &'static str = "Expr";

    /// The text.
    pub fn as_str(&self) -> &str {
        &self.0
    }

    /// Whether nothing is written.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }
}

impl<K> Name<K> {
    /// The text.
    pub fn as_str(&self) -> &str {
        &self.0
    }

    /// The part before the colon, where several pieces are put together.
    pub fn part(&self) -> Option<&str> {
        self.0.rsplit_once(':').map(|(part, _)| part)
    }

    /// The name within its part.
    pub fn within(&self) -> &str {
        self.0.rsplit_once(':').map_or(&self.0, |(_, within)| within)
    }

    /// The operation that made it.
    pub fn operation(&self) -> &str {
        let within = self.within();
        within.split(['.', '/']).next().unwrap_or(within)
    }
}

macro_rules! as_text {
    ($type:ty, [$($generic:tt)*], $from:expr) => {
        impl<$($generic)*> Deref for $type {
            type Target = str;
            fn deref(&self) -> &str {
                &self.0
            }
        }
        impl<$($generic)*> AsRef<str> for $type {
            fn as_ref(&self) -> &str {
                &self.0
            }
        }
        impl<$($generic)*> std::borrow::Borrow<str> for $type {
            fn borrow(&self) -> &str {
                &self.0
            }
        }
        impl<$($generic)*> fmt::Display for $type {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                self.0.fmt(f)
            }
        }
        impl<$($generic)*> From<String> for $type {
            fn from(text: String) -> Self {
                $from(text)
            }
        }
        impl<$($generic)*> From<&str> for $type {
            fn from(text: &str) -> Self {
                $from(text.to_string())
            }
        }
        impl<$($generic)*> From<$type> for String {
            fn from(text: $type) -> String {
                text.0
            }
        }
        impl<$($generic)*> PartialEq<str> for $type {
            fn eq(&self, other: &str) -> bool {
                self.0 == other
            }
        }
        impl<$($generic)*> PartialEq<&str> for $type {
            fn eq(&self, other: &&str) -> bool {
                self.0 == *other
            }
        }
        impl<$($generic)*> PartialEq<String> for $type {
            fn eq(&self, other: &String) -> bool {
                self.0 == *other
            }
        }
        impl<$($generic)*> PartialEq<$type> for String {
            fn eq(&self, other: &$type) -> bool {
                *self == other.0
            }
        }
    };
}

as_text!(Expr, [], Expr);
as_text!(Name<K>, [K], |text| Name(text, PhantomData));

impl<K> fmt::Debug for Name<K> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.fmt(f)
    }
}

impl<K> Default for Name<K> {
    fn default() -> Self {
        Name(String::new(), PhantomData)
    }
}

impl<K: NameOf> Serialize for Name<K> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_newtype_struct(K::CALLED, &self.0)
    }
}

impl<'de, K> Deserialize<'de> for Name<K> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        String::deserialize(deserializer).map(|text| Name(text, PhantomData))
    }
}

fn text_schema(words: &str) -> RefOr<Schema> {
    ObjectBuilder::new().schema_type(Type::String).description(Some(words)).into()
}

impl PartialSchema for Expr {
    fn schema() -> RefOr<Schema> {
        text_schema("A value as a person writes it: `A - 2*T`, `2 1/2 in`.")
    }
}

impl ToSchema for Expr {}

impl<K: NameOf> PartialSchema for Name<K> {
    fn schema() -> RefOr<Schema> {
        text_schema(K::WORDS)
    }
}

impl<K: NameOf> ToSchema for Name<K> {
    fn name() -> std::borrow::Cow<'static, str> {
        K::CALLED.into()
    }
}
