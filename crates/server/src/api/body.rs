//! A request's JSON, bounded, and refused in words that say where it goes wrong.

use aptum_formats::archive::{LARGEST_JOB, without_mark};
use rocket::data::{Data, FromData, Outcome, ToByteUnit};
use rocket::http::Status;
use rocket::request::Request;
use serde::de::DeserializeOwned;

/// Largest JSON that is read: what an archive may hold, and what goes round it in a request.
const LARGEST: u64 = LARGEST_JOB + (64 << 10);

/// What a request carries.
pub struct Body<T>(pub T);

/// Why it could not be read, for the catcher.
pub(super) struct Unreadable(pub Option<String>);

#[rocket::async_trait]
impl<'r, T: DeserializeOwned> FromData<'r> for Body<T> {
    type Error = ();

    async fn from_data(request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        let refuse = |status: Status, why: String| {
            request.local_cache(|| Unreadable(Some(why)));
            Outcome::Error((status, ()))
        };
        match data.open(LARGEST.bytes()).into_bytes().await {
            Err(error) => {
                refuse(Status::BadRequest, format!("The request did not arrive: {error}"))
            }
            Ok(bytes) if !bytes.is_complete() => refuse(
                Status::PayloadTooLarge,
                format!(
                    "The request is larger than {} MiB: keep fewer copies by hand, or make a second job",
                    LARGEST_JOB >> 20
                ),
            ),
            Ok(bytes) => match serde_json::from_slice(without_mark(&bytes)) {
                Ok(body) => Outcome::Success(Self(body)),
                Err(error) => refuse(
                    Status::UnprocessableEntity,
                    format!(
                        "The request’s JSON cannot be used ({error}): /api/openapi.json describes it"
                    ),
                ),
            },
        }
    }
}
