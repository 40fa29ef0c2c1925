//! Errors on the wire: one shape (RFC 9457), and the one table that maps faults to HTTP.

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use serde::Serialize;
use steelk_core::piece::DocumentError;
use steelk_core::release::Withheld;
use steelk_store::StoreError;
use utoipa::ToSchema;

/// Problem details.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct Problem {
    /// Always `about:blank`: the title says what it is.
    #[serde(rename = "type")]
    pub kind: String,
    /// A few words.
    pub title: String,
    /// HTTP status.
    pub status: u16,
    /// What is wrong and what to do, in a sentence or two.
    pub detail: String,
    /// Path of the field in the document, where one is at fault.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub field: Option<String>,
    /// The operation at fault.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub operation: Option<String>,
    /// The version a refused save was made from.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub yours: Option<i64>,
    /// The version that is saved now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current: Option<i64>,
}

impl Problem {
    /// A problem of this status.
    pub fn new(status: StatusCode, title: &str, detail: impl Into<String>) -> Self {
        Problem {
            kind: "about:blank".into(),
            title: title.into(),
            status: status.as_u16(),
            detail: detail.into(),
            field: None,
            operation: None,
            yours: None,
            current: None,
        }
    }

    /// A bad value in a field.
    pub fn field(field: &str, detail: impl Into<String>) -> Self {
        Problem {
            field: Some(field.into()),
            ..Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "Not a good value", detail)
        }
    }
}

impl std::fmt::Display for Problem {
    fn fmt(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(out, "{}: {}", self.title, self.detail)
    }
}

impl ResponseError for Problem {
    fn status_code(&self) -> StatusCode {
        StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR)
    }

    fn error_response(&self) -> HttpResponse {
        HttpResponse::build(self.status_code())
            .content_type("application/problem+json")
            .body(serde_json::to_string(self).unwrap_or_default())
    }
}

impl From<DocumentError> for Problem {
    fn from(fault: DocumentError) -> Self {
        let detail = format!("{}: {}", fault.path, fault.message);
        Problem {
            field: Some(fault.path),
            ..Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "The piece cannot be read", detail)
        }
    }
}

impl From<Withheld> for Problem {
    fn from(withheld: Withheld) -> Self {
        Problem::new(StatusCode::CONFLICT, withheld.title, withheld.detail)
    }
}

impl From<StoreError> for Problem {
    fn from(fault: StoreError) -> Self {
        let detail = fault.to_string();
        match fault {
            StoreError::Missing { .. } => Problem::new(StatusCode::NOT_FOUND, "Not there", detail),
            StoreError::Stale { yours, current } => Problem {
                yours: Some(yours),
                current: Some(current),
                ..Problem::new(
                    StatusCode::CONFLICT,
                    "Saved elsewhere in between",
                    format!("{detail}. Your change is not lost: look at the newer version, then save again."),
                )
            },
            StoreError::Taken { .. } => Problem::field("mark", detail),
            StoreError::Nothing(_) => Problem::new(StatusCode::CONFLICT, "Nothing to do", detail),
            StoreError::History { .. } => Problem::field("revisions", detail),
            StoreError::Full => Problem::new(StatusCode::INSUFFICIENT_STORAGE, "The disk is full", detail),
            StoreError::Held => Problem::new(StatusCode::SERVICE_UNAVAILABLE, "Held by another program", detail),
            StoreError::ReadOnly
            | StoreError::Damaged(_)
            | StoreError::Database(_)
            | StoreError::Migration(_)
            | StoreError::Newer { .. } => {
                Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "The save could not be made", detail)
            }
        }
    }
}

impl From<steelk_formats::WriteError> for Problem {
    fn from(fault: steelk_formats::WriteError) -> Self {
        Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "The file could not be written", fault.to_string())
    }
}
