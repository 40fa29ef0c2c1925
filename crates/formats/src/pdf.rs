//! Sheets of paper as PDF, at true size. Lines and curves; words in the reader's own Helvetica, so no font is needed.

use pdf_writer::{Content, Finish, Name, Pdf, Rect, Ref, Str};
use steelk_core::drawing::{Drawing, Layer, Sheet, Stroke};
use steelk_core::patience;
use steelk_core::plane::{Outline, Point, Segment};

/// Points of a PDF in a millimetre: 72 an inch.
const POINTS: f64 = 72.0 / 25.4;
/// Arcs are split so finely that a Bezier curve stays within 5e-6 of the radius: 45 deg.
const FINEST: f64 = std::f64::consts::FRAC_PI_4;

/// The sheets as the bytes of a PDF file, one page each.
pub fn write(sheets: &[Sheet], title: &str) -> Vec<u8> {
    let mut pdf = Pdf::new();
    let (catalog, tree, font, info) = (Ref::new(1), Ref::new(2), Ref::new(3), Ref::new(4));
    let page_of = |at: usize| Ref::new(5 + 2 * at as i32);
    pdf.catalog(catalog).pages(tree);
    pdf.pages(tree).kids((0..sheets.len()).map(page_of)).count(sheets.len() as i32);
    pdf.type1_font(font).base_font(Name(b"Helvetica"));
    pdf.document_info(info).title(pdf_writer::TextStr(title));
    for (at, sheet) in sheets.iter().enumerate() {
        let contents = Ref::new(6 + 2 * at as i32);
        let mut page = pdf.page(page_of(at));
        page.media_box(Rect::new(0.0, 0.0, points(sheet.width), points(sheet.height)));
        page.parent(tree).contents(contents);
        page.resources().fonts().pair(Name(b"F1"), font);
        page.finish();
        pdf.stream(contents, &content(sheet));
    }
    pdf.finish()
}

fn points(millimetres: f64) -> f32 {
    (millimetres * POINTS) as f32
}

fn content(sheet: &Sheet) -> Vec<u8> {
    let mut content = Content::new();
    content.save_state();
    let low = sheet.window.low;
    content.rect(points(low.x), points(low.y), points(sheet.window.width()), points(sheet.window.height()));
    content.clip_nonzero();
    content.end_path();
    draw(&mut content, &sheet.inside);
    content.restore_state();
    draw(&mut content, &sheet.frame);
    content.finish().into_vec()
}

fn draw(content: &mut Content, drawing: &Drawing) {
    for layer in Layer::ALL {
        let (weight, dash): (f32, &[f32]) = match layer {
            Layer::Cut => (0.7, &[]),
            Layer::BendUp => (0.5, &[8.0, 2.0, 2.0, 2.0]),
            Layer::BendDown => (0.5, &[5.0, 3.0]),
            Layer::Form => (0.5, &[3.0, 1.5]),
            Layer::Mark | Layer::Text => (0.35, &[]),
        };
        content.set_line_width(weight);
        content.set_dash_pattern(dash.iter().copied(), 0.0);
        for (_, stroke) in drawing.strokes.iter().filter(|(own, _)| *own == layer) {
            patience::check();
            match stroke {
                Stroke::Segment(one) => {
                    move_to(content, one.start);
                    run(content, one);
                }
                Stroke::Circle { centre, radius } => {
                    for (at, (one, _)) in Outline::circle(*centre, *radius, 0).segments().enumerate() {
                        if at == 0 {
                            move_to(content, one.start);
                        }
                        run(content, &one);
                    }
                    content.close_path();
                }
            }
            content.stroke();
        }
    }
    content.set_dash_pattern([], 0.0);
    for (_, text) in &drawing.texts {
        let (sin, cos) = text.turn.sin_cos();
        content.begin_text();
        // Capitals of Helvetica are 0.72 of its size.
        content.set_font(Name(b"F1"), points(text.height / 0.72));
        content.set_text_matrix([
            cos as f32,
            sin as f32,
            -sin as f32,
            cos as f32,
            points(text.place.x),
            points(text.place.y),
        ]);
        content.show(Str(plain(&text.value).as_bytes()));
        content.end_text();
    }
}

fn move_to(content: &mut Content, point: Point) {
    content.move_to(points(point.x), points(point.y));
}

fn run(content: &mut Content, one: &Segment) {
    if one.is_line() {
        content.line_to(points(one.end.x), points(one.end.y));
        return;
    }
    let parts = (one.sweep().abs() / FINEST).ceil().max(1.0) as usize;
    for at in 0..parts {
        let piece = one.part(at as f64 / parts as f64, (at + 1) as f64 / parts as f64);
        let centre = piece.centre();
        // Handles of 4/3 tan(a/4) of the radius give a quarter-arc's best cubic (standard result).
        let handle = 4.0 / 3.0 * (piece.sweep() / 4.0).tan();
        let first = piece.start + (piece.start - centre).left() * handle;
        let second = piece.end - (piece.end - centre).left() * handle;
        content.cubic_to(
            points(first.x),
            points(first.y),
            points(second.x),
            points(second.y),
            points(piece.end.x),
            points(piece.end.y),
        );
    }
}

/// ASCII only: what every built-in font shows alike.
fn plain(text: &str) -> String {
    text.chars().map(|c| if c.is_ascii() && !c.is_ascii_control() { c } else { '?' }).collect()
}
