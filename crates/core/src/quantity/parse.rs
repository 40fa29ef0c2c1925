//! From text to [`Expression`]: a small recursive descent with bounds on length and depth.

use super::drill::drill_inches;
use super::expression::Literal;
use super::{BinaryOperator, Expression, Function, Node, QuantityError, Round, Span, Unit};

/// The longest text read as one value, in bytes.
pub const LONGEST_TEXT: usize = 1000;
/// The deepest nesting of brackets, signs and calls; deeper is refused, so the stack is never at risk.
pub const DEEPEST_NESTING: usize = 60;

/// Reads one typed value.
///
/// # Errors
/// A sentence with the span of the fault: an empty text, a character that belongs nowhere, a bracket left open, an
/// unknown unit or function, nesting deeper than [`DEEPEST_NESTING`], a text longer than [`LONGEST_TEXT`].
pub fn parse(text: &str) -> Result<Expression, QuantityError> {
    if text.len() > LONGEST_TEXT {
        return Err(QuantityError::new(
            format!("this value is {} characters long; {LONGEST_TEXT} is the most that is read", text.len()),
            Span { start: LONGEST_TEXT, end: text.len() },
            "Make a call-out of part of it and cite it by name.",
        ));
    }
    let mut parser = Parser { text, at: 0, depth: 0 };
    parser.skip_space();
    if parser.rest().is_empty() {
        return Err(QuantityError::new(
            "nothing is written here",
            Span { start: 0, end: text.len() },
            "Type a value with its unit, such as 12 mm, or a call-out's name.",
        ));
    }
    let expression = parser.sum()?;
    parser.skip_space();
    if let Some(character) = parser.rest().chars().next() {
        return Err(parser.fault_here(
            format!("\"{character}\" is not expected here"),
            "Put an operator (+ - * /) between two values, or close the value before it.",
        ));
    }
    Ok(expression)
}

/// A count as drawings write it, `4x`, without its sign.
pub fn without_times(text: &str) -> &str {
    let plain = text.trim_end();
    let number = plain.strip_suffix(['x', 'X', '\u{d7}']).unwrap_or(plain).trim_end();
    if number.ends_with(|sign: char| sign.is_ascii_digit())
        && number.chars().all(|sign| sign.is_ascii_digit() || sign == ' ')
    {
        number
    } else {
        text
    }
}

struct Parser<'a> {
    text: &'a str,
    at: usize,
    depth: usize,
}

impl<'a> Parser<'a> {
    fn rest(&self) -> &'a str {
        &self.text[self.at..]
    }

    fn skip_space(&mut self) {
        let rest = self.rest();
        self.at += rest.len() - rest.trim_start().len();
    }

    fn fault_here(&self, message: String, way_out: &str) -> QuantityError {
        let width = self.rest().chars().next().map_or(0, char::len_utf8);
        QuantityError::new(message, Span { start: self.at, end: self.at + width }, way_out)
    }

    fn take(&mut self, character: char) -> bool {
        self.skip_space();
        let found = self.rest().starts_with(character);
        if found {
            self.at += character.len_utf8();
        }
        found
    }

    fn deeper(&mut self) -> Result<(), QuantityError> {
        self.depth += 1;
        if self.depth > DEEPEST_NESTING {
            return Err(self.fault_here(
                format!("brackets, signs and calls stand more than {DEEPEST_NESTING} deep here"),
                "Make a call-out of the inner part and cite it by name.",
            ));
        }
        Ok(())
    }

    fn sum(&mut self) -> Result<Expression, QuantityError> {
        let mut left = self.product()?;
        loop {
            let operator = if self.take('+') {
                BinaryOperator::Add
            } else if self.take('-') || self.take('\u{2212}') {
                BinaryOperator::Subtract
            } else {
                return Ok(left);
            };
            let right = self.product()?;
            left = binary(operator, left, right);
        }
    }

    fn product(&mut self) -> Result<Expression, QuantityError> {
        let mut left = self.signed()?;
        loop {
            let operator = if self.take('*') || self.take('\u{d7}') {
                BinaryOperator::Multiply
            } else if self.take('/') {
                BinaryOperator::Divide
            } else {
                return Ok(left);
            };
            let right = self.signed()?;
            left = binary(operator, left, right);
        }
    }

    fn signed(&mut self) -> Result<Expression, QuantityError> {
        self.skip_space();
        let start = self.at;
        if self.take('-') || self.take('\u{2212}') {
            self.deeper()?;
            let inner = self.signed()?;
            self.depth -= 1;
            let span = Span { start, end: inner.span.end };
            return Ok(Expression { node: Node::Negative(Box::new(inner)), span });
        }
        self.atom()
    }

    fn atom(&mut self) -> Result<Expression, QuantityError> {
        self.skip_space();
        let start = self.at;
        let Some(first) = self.rest().chars().next() else {
            return Err(self.fault_here(
                "the value stops here, where a number or a name is needed".into(),
                "Finish the value, or take the last operator away.",
            ));
        };
        if first == '(' {
            self.at += 1;
            self.deeper()?;
            let mut inner = self.sum()?;
            self.depth -= 1;
            if !self.take(')') {
                return Err(QuantityError::new(
                    "this bracket is never closed",
                    Span { start, end: start + 1 },
                    "Add the closing bracket.",
                ));
            }
            inner.span = Span { start, end: self.at };
            return Ok(inner);
        }
        if first.is_ascii_digit() || first == '.' {
            return self.number();
        }
        if ['\u{d8}', '\u{f8}', '\u{2300}'].contains(&first) {
            self.at += first.len_utf8();
            return self.round(Round::Diameter, start);
        }
        if first == '#' {
            self.at += 1;
            let digits: String = self.rest().chars().take_while(char::is_ascii_digit).collect();
            self.at += digits.len();
            return self.drill(&format!("#{digits}"), start);
        }
        if first.is_alphabetic() || first == '_' {
            return self.name_or_call();
        }
        Err(self.fault_here(
            format!("\"{first}\" is not part of a value"),
            "Values are made of numbers, units, call-out names, + - * / and brackets.",
        ))
    }

    /// A drill by its number or letter, read up to here: a diameter in inches.
    fn drill(&self, name: &str, start: usize) -> Result<Expression, QuantityError> {
        let span = Span { start, end: self.at };
        let inches = drill_inches(name).ok_or_else(|| {
            QuantityError::new(
                format!("there is no drill {name}"),
                span,
                "Drills have the numbers #1 to #80 and the letters A to Z: #7, letter F.",
            )
        })?;
        let size = Expression { node: Node::Measured(vec![(Literal::Decimal(inches), Unit::Inch)]), span };
        Ok(Expression { node: Node::Round(Round::Diameter, Box::new(size)), span })
    }

    /// The size of a round after its sign.
    fn round(&mut self, round: Round, start: usize) -> Result<Expression, QuantityError> {
        self.deeper()?;
        let inner = self.atom()?;
        self.depth -= 1;
        let span = Span { start, end: inner.span.end };
        Ok(Expression { node: Node::Round(round, Box::new(inner)), span })
    }

    /// Whether the word just read, which began at `start`, says a round's size: `dia 9`, `R 20`, `R20 mm`, `R1/2 in`, `R2.5`. What
    /// may as well be a name (`R20`) is left to whoever knows the names. The place is then at the size.
    fn says_round(&mut self, word: &str, start: usize) -> Option<Round> {
        let after = self.at;
        let digit = |rest: &str| rest.trim_start().starts_with(|sign: char| sign.is_ascii_digit() || sign == '.');
        if ["dia", "Dia", "DIA", "diam"].contains(&word) {
            let rest = self.rest();
            let rest = rest.strip_prefix('.').unwrap_or(rest);
            if digit(rest) {
                self.at = self.text.len() - rest.len();
                return Some(Round::Diameter);
            }
            return None;
        }
        let digits = word.strip_prefix('R')?;
        if digits.is_empty() {
            return digit(self.rest()).then_some(Round::Radius);
        }
        if !digits.chars().all(|sign| sign.is_ascii_digit()) {
            return None;
        }
        let goes_on = self.rest().strip_prefix('.').is_some_and(|rest| rest.starts_with(|c: char| c.is_ascii_digit()));
        let has_unit = matches!(self.unit(), Ok(Some(_)));
        self.at = start + 1;
        let fraction = self.rest()[digits.len()..].starts_with(['/', ' ']) && self.fraction_with_unit().is_some();
        self.at = if goes_on || has_unit || fraction { start + 1 } else { after };
        (goes_on || has_unit || fraction).then_some(Round::Radius)
    }

    fn name_or_call(&mut self) -> Result<Expression, QuantityError> {
        let start = self.at;
        let name = self.word().to_string();
        if let Some(round) = self.says_round(&name, start) {
            return self.round(round, start);
        }
        if ["letter", "ltr", "LTR"].contains(&name.as_str()) {
            let before = self.at;
            self.skip_space();
            let letter = self.word().to_string();
            if letter.len() == 1 && letter.starts_with(|sign: char| sign.is_ascii_uppercase()) {
                return self.drill(&letter, start);
            }
            self.at = before;
        }
        let span = Span { start, end: self.at };
        if !self.rest().trim_start().starts_with('(') {
            if Function::named(&name).is_some() {
                return Err(QuantityError::new(
                    format!("{name} is a function and needs its value in brackets"),
                    span,
                    format!("Write {name}( ... )."),
                ));
            }
            if Unit::named(&name).is_some_and(|unit| !unit.is_power()) {
                return Err(QuantityError::new(
                    format!("the unit {name} stands here without a number"),
                    span,
                    format!("Write the number before it, such as 12 {name}."),
                ));
            }
            return Ok(Expression { node: Node::Name(name), span });
        }
        let Some(function) = Function::named(&name) else {
            return Err(QuantityError::new(
                format!("there is no function called {name}"),
                span,
                "The functions are min, max, abs, sqrt, sin, cos, tan, asin, acos, atan and round.",
            ));
        };
        self.take('(');
        self.deeper()?;
        let mut arguments = vec![self.sum()?];
        while self.take(',') {
            arguments.push(self.sum()?);
        }
        self.depth -= 1;
        if !self.take(')') {
            return Err(QuantityError::new(
                format!("the bracket after {name} is never closed"),
                span,
                "Add the closing bracket.",
            ));
        }
        let span = Span { start, end: self.at };
        let many = matches!(function, Function::Min | Function::Max);
        if (many && arguments.len() < 2) || (!many && arguments.len() != 1) {
            let wanted = if many { "two values or more" } else { "one value" };
            return Err(QuantityError::new(
                format!("{name} takes {wanted}; {} given", arguments.len()),
                span,
                "Values in a call are parted by commas.",
            ));
        }
        Ok(Expression { node: Node::Call(function, arguments), span })
    }

    /// A word: letters, digits and underscores.
    fn word(&mut self) -> &'a str {
        let rest = self.rest();
        let length = rest.find(|c: char| !(c.is_alphanumeric() || c == '_')).unwrap_or(rest.len());
        self.at += length;
        &rest[..length]
    }

    /// A number with or without a unit, a fraction, or feet and inches.
    fn number(&mut self) -> Result<Expression, QuantityError> {
        let start = self.at;
        let mut parts = Vec::new();
        if let Some(part) = self.fraction_with_unit() {
            parts.push(part);
        } else if let Some(value) = self.mixed() {
            return Ok(Expression { node: Node::Bare(value), span: Span { start, end: self.at } });
        } else {
            let value = self.decimal()?;
            match self.unit()? {
                Some(unit) => parts.push((Literal::Decimal(value), unit)),
                None => {
                    return Ok(Expression { node: Node::Bare(value), span: Span { start, end: self.at } });
                }
            }
        }
        if parts[0].1 == Unit::Foot {
            self.inches_after_feet(&mut parts)?;
        }
        Ok(Expression { node: Node::Measured(parts), span: Span { start, end: self.at } })
    }

    /// The `4 1/2"` of `3' 4 1/2"`; leaves the place alone when what follows is no such thing.
    fn inches_after_feet(&mut self, parts: &mut Vec<(Literal, Unit)>) -> Result<(), QuantityError> {
        let before = self.at;
        self.skip_space();
        // `3'-4"` is how drawings write feet and inches; `3' - 4"` with spaces is a subtraction.
        if self.at == before && self.rest().starts_with('-') {
            self.at += 1;
        }
        if self.rest().starts_with(|c: char| c.is_ascii_digit()) {
            let part = match self.fraction_with_unit() {
                Some(part) => Some(part),
                None => {
                    let value = self.decimal()?;
                    self.unit()?.map(|unit| (Literal::Decimal(value), unit))
                }
            };
            if let Some(part) = part
                && part.1 == Unit::Inch
            {
                parts.push(part);
                return Ok(());
            }
        }
        self.at = before;
        Ok(())
    }

    /// `1/2 in`, `2 1/2 in`, `2-1/2"`: only where a length unit follows, so that `A - 1/2` stays a division.
    fn fraction_with_unit(&mut self) -> Option<(Literal, Unit)> {
        let before = self.at;
        let found = self.try_fraction();
        if found.is_none() {
            self.at = before;
        }
        found
    }

    /// `3 1/8` or `3-1/2` without a unit: a whole and a fraction, as drawings write them. With spaces round the sign it is a
    /// subtraction; the fraction must be less than one.
    fn mixed(&mut self) -> Option<f64> {
        let before = self.at;
        let found = self.try_mixed();
        if found.is_none() {
            self.at = before;
        }
        found
    }

    fn try_mixed(&mut self) -> Option<f64> {
        let whole = self.whole_number()?;
        let gap = self.at;
        self.skip_space();
        if self.at == gap {
            if !self.rest().starts_with('-') {
                return None;
            }
            self.at += 1;
        }
        let top = self.whole_number()?;
        if !self.rest().starts_with('/') {
            return None;
        }
        self.at += 1;
        let bottom = self.whole_number()?;
        // `3 1/8.5`, `3-1/2x`: something else goes on here.
        let goes_on = self.rest().starts_with(|c: char| c.is_alphanumeric() || matches!(c, '.' | '_' | '/'));
        (top < bottom && !goes_on).then(|| f64::from(whole) + f64::from(top) / f64::from(bottom))
    }

    fn try_fraction(&mut self) -> Option<(Literal, Unit)> {
        let first = self.whole_number()?;
        let (whole, top) = if self.rest().starts_with('/') {
            (0, first)
        } else {
            let gap = self.at;
            self.skip_space();
            if self.at == gap {
                if !self.rest().starts_with('-') {
                    return None;
                }
                self.at += 1;
            }
            (first, self.whole_number()?)
        };
        if !self.rest().starts_with('/') {
            return None;
        }
        self.at += 1;
        let bottom = self.whole_number()?;
        if bottom == 0 {
            return None;
        }
        let unit = self.unit().ok().flatten()?;
        (unit.dimension() == super::Dimension::LENGTH).then_some((Literal::Fraction(whole, top, bottom), unit))
    }

    fn whole_number(&mut self) -> Option<u32> {
        let rest = self.rest();
        let length = rest.find(|c: char| !c.is_ascii_digit()).unwrap_or(rest.len());
        let value = rest[..length].parse().ok()?;
        self.at += length;
        Some(value)
    }

    fn decimal(&mut self) -> Result<f64, QuantityError> {
        let start = self.at;
        let rest = self.rest();
        let mut length = rest.find(|c: char| !(c.is_ascii_digit() || c == '.')).unwrap_or(rest.len());
        // An exponent only where digits follow: `2e3`, never the start of a word.
        let tail = &rest[length..];
        if tail.starts_with(['e', 'E']) {
            let after = &tail[1..];
            let signed = after.strip_prefix(['+', '-']).unwrap_or(after);
            let digits = signed.find(|c: char| !c.is_ascii_digit()).unwrap_or(signed.len());
            if digits > 0 {
                length += 1 + (after.len() - signed.len()) + digits;
            }
        }
        self.at += length;
        let span = Span { start, end: self.at };
        let typed = &rest[..length];
        let value: f64 = typed.parse().map_err(|_| {
            QuantityError::new(
                format!("\"{typed}\" is not a number"),
                span,
                "Use one decimal point and no thousands marks, such as 1250.5.",
            )
        })?;
        if !value.is_finite() {
            return Err(QuantityError::new(
                format!("\"{typed}\" is too large a number"),
                span,
                "Check for digits typed twice.",
            ));
        }
        Ok(value)
    }

    fn unit(&mut self) -> Result<Option<Unit>, QuantityError> {
        let before = self.at;
        self.skip_space();
        let start = self.at;
        for (sign, unit) in [
            ("''", Unit::Inch),
            ("\"", Unit::Inch),
            ("\u{2033}", Unit::Inch),
            ("'", Unit::Foot),
            ("\u{2032}", Unit::Foot),
            ("\u{b0}", Unit::Degree),
        ] {
            if self.rest().starts_with(sign) {
                self.at += sign.len();
                return Ok(Some(unit));
            }
        }
        if !self.rest().starts_with(|c: char| c.is_alphabetic() || c == '_') {
            self.at = before;
            return Ok(None);
        }
        let word = self.word();
        if let Some(unit) = Unit::named(word) {
            return Ok(Some(unit));
        }
        Err(QuantityError::new(
            format!("\"{word}\" is not a unit"),
            Span { start, end: self.at },
            "Units are mm, cm, m, in, ft, deg, rad, kg, g, lb, and mm2, mm3 and their like. To multiply by a call-out, put * between.",
        ))
    }
}

fn binary(operator: BinaryOperator, left: Expression, right: Expression) -> Expression {
    let span = Span { start: left.span.start, end: right.span.end };
    Expression { node: Node::Binary(operator, Box::new(left), Box::new(right)), span }
}
