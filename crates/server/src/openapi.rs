//! The API's description and the piece document's JSON Schema, both generated from the Rust types.

use std::sync::LazyLock;

use serde_json::{Value, json};
use steelk_formats::output::{OUTPUTS, Of};
use utoipa::OpenApi;

use crate::{answer, api, problem};

#[derive(OpenApi)]
#[openapi(
    info(title = "Steelk", description = "Sheet parts from drawing to proved blank."),
    paths(
        api::health,
        api::description,
        api::stock,
        api::build_piece,
        api::fold_piece,
        api::audit_piece,
        api::offers_for,
        api::rename,
        api::list_jobs,
        api::add_job,
        api::job,
        api::change_job,
        api::remove_job,
        api::put_back_job,
        api::copy_job,
        api::export_job,
        api::import_job,
        api::job_log,
        api::add_piece,
        api::get_piece,
        api::piece_version,
        api::save_piece,
        api::remove_piece,
        api::put_back_piece,
        api::undo,
        api::redo,
        api::revisions,
        api::revision,
        api::restore_revision,
        api::put_drawing,
        api::get_drawing,
        api::put_photo,
        api::get_photo,
        api::piece_zip,
        api::job_zip,
        api::job_pack_file,
        api::bin,
        api::job_bin,
        api::remove_drawing,
        api::remove_photo,
        api::past_pictures,
        api::past_picture,
        api::restore_picture,
        api::past_shop_tables,
        api::read_outline,
        api::pull_outline,
        api::tables,
        api::cutting,
        api::get_cutters,
        api::save_cutters,
        api::get_bend_tables,
        api::save_bend_tables,
        api::read_bend_table,
        api::bend_table_file,
        api::cutters_file,
        api::read_cutters_file,
        api::outputs,
        api::file,
        api::job_file,
        api::get_files,
        api::save_files,
        api::try_names,
        api::get_shop_frames,
        api::save_shop_frames,
        api::try_section,
        api::shop_frames_file,
        api::read_shop_frames,
        api::get_shop_screws,
        api::save_shop_screws,
        api::read_shop_screws,
        api::shop_screws_file,
        api::rules,
        api::get_shop_rules,
        api::save_shop_rules,
        api::shop_rules_file,
        api::read_shop_rules,
        api::piece_file,
        api::get_sections,
        api::plan_bars,
        api::read_centre_lines,
        api::saw,
    ),
    components(schemas(
        api::BuildRequest,
        api::BendTables,
        api::SaveBendTables,
        api::BendTableText,
        api::FoldRequest,
        api::RenameRequest,
        api::RenameAnswer,
        api::Renamed,
        api::AuditRequest,
        api::SaveShopFrames,
        api::ShopFrames,
        api::ShopFramesTable,
        api::SlotName,
        api::ShopTableName,
        answer::BuildAnswer,
        answer::MeshView,
        problem::Problem,
        steelk_core::piece::Piece,
        steelk_core::stock::Stock,
    ))
)]
struct Api;

/// The OpenAPI 3.1 document, with every refusal that an operation may answer with.
pub fn document() -> Value {
    let mut document = serde_json::to_value(Api::openapi()).unwrap_or_default();
    let paths = document.get_mut("paths").and_then(Value::as_object_mut);
    for (_, operations) in paths.into_iter().flatten() {
        for (method, operation) in operations.as_object_mut().into_iter().flatten() {
            add_refusals(method, operation);
        }
    }
    for (path, of_job) in [("/api/pieces/{id}/files/{file}", false), ("/api/jobs/{id}/files/{file}", true)] {
        document["paths"][path]["get"]["responses"]["200"]["content"] = media(of_job);
    }
    document
}

/// The media types of the list of outputs, of a piece or of a job.
fn media(of_job: bool) -> Value {
    let of = |media: &str| if media == "application/json" { json!({}) } else { json!({"schema": {"type": "string"}}) };
    let own = OUTPUTS.iter().filter(|output| (output.of == Of::Job) == of_job);
    let plain = own.filter_map(|output| output.media.split(';').next());
    Value::Object(plain.map(|media| (media.to_string(), of(media))).collect())
}

/// What may be asked of an address, as its description says; nothing of one that is none.
pub fn methods_of(path: &str) -> &'static [String] {
    static KNOWN: LazyLock<Vec<(Vec<String>, Vec<String>)>> = LazyLock::new(|| {
        let document = document();
        let paths = document["paths"].as_object().into_iter().flatten();
        let parts = |path: &str| path.split('/').map(str::to_string).collect();
        let methods = |of: &Value| of.as_object().into_iter().flatten().map(|(name, _)| name.to_uppercase()).collect();
        paths.map(|(path, operations)| (parts(path), methods(operations))).collect()
    });
    let parts: Vec<&str> = path.split('/').collect();
    let fits = |known: &[String]| {
        known.len() == parts.len()
            && known.iter().zip(&parts).all(|(one, own)| one == own || one.starts_with('{') && !own.is_empty())
    };
    KNOWN.iter().find(|(known, _)| fits(known)).map_or(&[], |(_, methods)| methods)
}

/// Adds what the guard, the readers of requests, the line and the store refuse with, whatever the operation.
fn add_refusals(method: &str, operation: &mut Value) {
    let is_write = method != "get";
    let parameters = operation["parameters"].as_array().cloned().unwrap_or_default();
    let has = |place: &str| parameters.iter().any(|one| one["in"] == place);
    let (has_body, in_path, in_query) = (operation["requestBody"].is_object(), has("path"), has("query"));
    let refusals = [
        (true, "403", "Not under this host name, or not from Steelk's own pages"),
        (true, "415", "A packed body, or one of another kind"),
        (true, "500", "Steelk's own working stopped, or the database failed"),
        (true, "503", "Too much is asked for at once, or another program holds the database; try again"),
        (has_body || in_query, "400", "The request cannot be read"),
        (in_path, "404", "Not there"),
        (has_body, "408", "The body did not come in time"),
        (has_body, "413", "The body is too large"),
        (in_path || has_body, "422", "Not a good value, or working it out takes too long"),
        (is_write, "409", "Saved elsewhere in between, or nothing to do"),
        (is_write, "507", "The disk is full"),
    ];
    let Some(responses) = operation["responses"].as_object_mut() else { return };
    for (_, status, words) in refusals.into_iter().filter(|one| one.0) {
        responses.entry(status).or_insert_with(|| json!({"description": words}));
    }
    for (_, response) in responses.iter_mut().filter(|(status, _)| status.as_str() >= "400") {
        response["content"] = json!({"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}});
    }
}

/// The JSON Schema (2020-12) of the piece document: the same types, with what they refer to gathered under `$defs`.
pub fn piece_schema() -> Value {
    let api = document();
    let all = api["components"]["schemas"].clone();
    let mut wanted = vec!["Piece".to_string()];
    let mut definitions = serde_json::Map::new();
    while let Some(name) = wanted.pop() {
        if definitions.contains_key(&name) {
            continue;
        }
        let mut schema = all[&name].clone();
        point_to_definitions(&mut schema, &mut wanted);
        definitions.insert(name, schema);
    }
    let root = definitions.remove("Piece").unwrap_or_default();
    let mut schema = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Steelk piece document, version 1",
    });
    if let (Some(target), Value::Object(fields)) = (schema.as_object_mut(), root) {
        target.extend(fields);
        target.insert("$defs".into(), Value::Object(definitions));
    }
    schema
}

fn point_to_definitions(value: &mut Value, wanted: &mut Vec<String>) {
    match value {
        Value::Object(map) => {
            if let Some(Value::String(reference)) = map.get_mut("$ref")
                && let Some(name) = reference.strip_prefix("#/components/schemas/")
            {
                wanted.push(name.to_string());
                *reference = format!("#/$defs/{name}");
            }
            map.values_mut().for_each(|inner| point_to_definitions(inner, wanted));
        }
        Value::Array(list) => list.iter_mut().for_each(|inner| point_to_definitions(inner, wanted)),
        _ => {}
    }
}
