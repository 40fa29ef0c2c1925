//! The tree of a typed expression, and its printing back to text.

use std::fmt;

use super::Unit;

/// Byte offsets in the text typed, start inclusive, end exclusive.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Span {
    /// First byte.
    pub start: usize,
    /// One past the last byte.
    pub end: usize,
}

/// An expression with the place it stood at.
#[derive(Clone, Debug)]
pub struct Expression {
    /// What it is.
    pub node: Node,
    /// Where it stood in the text.
    pub span: Span,
}

/// Two expressions are equal when they say the same, wherever they stood.
impl PartialEq for Expression {
    fn eq(&self, other: &Self) -> bool {
        self.node == other.node
    }
}

/// The kinds of expression.
#[derive(Clone, Debug, PartialEq)]
pub enum Node {
    /// A number with no unit.
    Bare(f64),
    /// Numbers with units that stand for one sum: `3' 4 1/2"` has two parts.
    Measured(Vec<(Literal, Unit)>),
    /// A call-out, `T`, `R` or `pi`.
    Name(String),
    /// `Ø9`, `dia 9`, `R 20`: a round with how drawings say its size.
    Round(Round, Box<Expression>),
    /// `-x`.
    Negative(Box<Expression>),
    /// `x + y` and its like.
    Binary(BinaryOperator, Box<Expression>, Box<Expression>),
    /// `max(x, y)` and its like.
    Call(Function, Vec<Expression>),
}

/// How the size of a round is said.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Round {
    /// `Ø9`.
    Diameter,
    /// `R20`.
    Radius,
}

impl Round {
    /// What it is called.
    pub fn word(self) -> &'static str {
        match self {
            Round::Diameter => "diameter",
            Round::Radius => "radius",
        }
    }

    /// Its sign as it is printed: never one that could begin a name.
    pub fn sign(self) -> &'static str {
        match self {
            Round::Diameter => "\u{d8}",
            Round::Radius => "R ",
        }
    }
}

/// A number as typed: decimal, or whole and fraction.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Literal {
    /// `2.5`.
    Decimal(f64),
    /// `2 1/2`: whole, numerator, denominator (never zero).
    Fraction(u32, u32, u32),
}

impl Literal {
    /// Its value.
    pub fn value(self) -> f64 {
        match self {
            Literal::Decimal(value) => value,
            Literal::Fraction(whole, top, bottom) => f64::from(whole) + f64::from(top) / f64::from(bottom),
        }
    }
}

/// The four operations.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BinaryOperator {
    /// `+`
    Add,
    /// `-`
    Subtract,
    /// `*`
    Multiply,
    /// `/`
    Divide,
}

impl BinaryOperator {
    /// How tightly it binds; higher binds first.
    pub(crate) fn rank(self) -> u8 {
        match self {
            BinaryOperator::Add | BinaryOperator::Subtract => 1,
            BinaryOperator::Multiply | BinaryOperator::Divide => 2,
        }
    }

    pub(crate) fn sign(self) -> char {
        match self {
            BinaryOperator::Add => '+',
            BinaryOperator::Subtract => '-',
            BinaryOperator::Multiply => '*',
            BinaryOperator::Divide => '/',
        }
    }
}

/// The functions that may be called.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Function {
    Min,
    Max,
    Abs,
    Sqrt,
    Sin,
    Cos,
    Tan,
    Asin,
    Acos,
    Atan,
    Round,
}

impl Function {
    /// Every function with its name.
    pub const ALL: [(Function, &'static str); 11] = [
        (Function::Min, "min"),
        (Function::Max, "max"),
        (Function::Abs, "abs"),
        (Function::Sqrt, "sqrt"),
        (Function::Sin, "sin"),
        (Function::Cos, "cos"),
        (Function::Tan, "tan"),
        (Function::Asin, "asin"),
        (Function::Acos, "acos"),
        (Function::Atan, "atan"),
        (Function::Round, "round"),
    ];

    /// The function of this name.
    pub fn named(name: &str) -> Option<Function> {
        Function::ALL.iter().find(|(_, known)| *known == name).map(|(function, _)| *function)
    }

    /// Its name.
    pub fn name(self) -> &'static str {
        Function::ALL.iter().find(|(function, _)| *function == self).map_or("", |(_, name)| name)
    }
}

impl Expression {
    /// The names it cites, in the order met, each once.
    pub fn names(&self) -> Vec<String> {
        let mut names = Vec::new();
        self.collect_names(&mut names);
        names
    }

    fn collect_names(&self, names: &mut Vec<String>) {
        match &self.node {
            Node::Bare(_) | Node::Measured(_) => {}
            Node::Name(name) => {
                if !names.contains(name) {
                    names.push(name.clone());
                }
            }
            Node::Negative(inner) | Node::Round(_, inner) => inner.collect_names(names),
            Node::Binary(_, left, right) => {
                left.collect_names(names);
                right.collect_names(names);
            }
            Node::Call(_, arguments) => arguments.iter().for_each(|argument| argument.collect_names(names)),
        }
    }
}

impl fmt::Display for Expression {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        match &self.node {
            Node::Bare(value) => write!(out, "{value}"),
            Node::Measured(parts) => {
                for (at, (literal, unit)) in parts.iter().enumerate() {
                    if at > 0 {
                        out.write_str(" ")?;
                    }
                    match literal {
                        Literal::Decimal(value) => write!(out, "{value}")?,
                        Literal::Fraction(0, top, bottom) => write!(out, "{top}/{bottom}")?,
                        Literal::Fraction(whole, top, bottom) => write!(out, "{whole} {top}/{bottom}")?,
                    }
                    write!(out, " {}", unit.name())?;
                }
                Ok(())
            }
            Node::Name(name) => out.write_str(name),
            Node::Round(round, inner) => match inner.node {
                Node::Bare(_) | Node::Measured(_) => write!(out, "{}{inner}", round.sign()),
                _ => write!(out, "{}({inner})", round.sign()),
            },
            Node::Negative(inner) => match inner.node {
                Node::Binary(..) => write!(out, "-({inner})"),
                _ => write!(out, "-{inner}"),
            },
            Node::Binary(operator, left, right) => {
                let side = |out: &mut fmt::Formatter<'_>, inner: &Expression, is_right: bool| {
                    let needs = match &inner.node {
                        Node::Binary(other, ..) => {
                            other.rank() < operator.rank() || (is_right && other.rank() == operator.rank())
                        }
                        // `a - -b` reads badly and `2 -1/2 in` would be a fraction: always in brackets.
                        Node::Negative(_) => true,
                        _ => false,
                    };
                    if needs { write!(out, "({inner})") } else { write!(out, "{inner}") }
                };
                side(out, left, false)?;
                write!(out, " {} ", operator.sign())?;
                side(out, right, true)
            }
            Node::Call(function, arguments) => {
                write!(out, "{}(", function.name())?;
                for (at, argument) in arguments.iter().enumerate() {
                    if at > 0 {
                        out.write_str(", ")?;
                    }
                    write!(out, "{argument}")?;
                }
                out.write_str(")")
            }
        }
    }
}
