//! The passphrase of a server that others can reach: asked once per browser, known only as a hash.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;

use argon2::Argon2;
use rocket::http::{Cookie, CookieJar, SameSite};
use rocket::serde::json::Json;
use rocket::tokio::sync::Mutex;
use rocket::tokio::task::spawn_blocking;
use rocket::{State, post};
use schemars::JsonSchema;
use serde::Deserialize;
use ts_rs::TS;

use crate::api::Problem;

/// Keeps the door.
pub struct Guard {
    salt: String,
    /// The passphrase's hash, and what a browser that has given it shows from then on.
    secret: Secret,
    /// Wrong attempts in a row; attempts come in one after the other.
    wrong: Mutex<u32>,
    waiting: AtomicUsize,
}

#[derive(Clone, PartialEq, Eq)]
struct Secret {
    hash: [u8; 32],
    token: String,
}

/// More attempts than this do not wait for their turn.
const MOST_WAITING: usize = 8;

/// The longest wait before an attempt is looked at.
const LONGEST: Duration = Duration::from_secs(30);

/// A made passphrase has so many characters of five bits each.
const MADE: usize = 20;

impl Guard {
    /// The cookie's name.
    pub const COOKIE: &'static str = "aptum-entered";

    /// A guard for a passphrase; `salt` belongs to the data file, so that browsers are known again after a
    /// restart with the same passphrase.
    ///
    /// # Errors
    /// A passphrase that is too short, in words.
    pub fn new(passphrase: &str, salt: &str) -> Result<Self, String> {
        let long = passphrase.chars().count();
        if long < 8 {
            return Err(format!("the passphrase has {long} characters: give it at least 8"));
        }
        let secret = secret(passphrase, salt).ok_or("the passphrase cannot be hashed")?;
        let (wrong, waiting) = (Mutex::new(0), AtomicUsize::new(0));
        Ok(Self { salt: salt.to_owned(), secret, wrong, waiting })
    }

    /// A passphrase that nobody guesses.
    ///
    /// # Errors
    /// A system that gives no random numbers, in words.
    pub fn make_passphrase() -> Result<String, String> {
        const LETTERS: &[u8; 32] = b"0123456789abcdefghjkmnpqrstvwxyz";
        let letters: Vec<char> = random::<MADE>()?
            .iter()
            .map(|byte| char::from(LETTERS[usize::from(byte & 31)]))
            .collect();
        let groups: Vec<String> = letters.chunks(5).map(|group| group.iter().collect()).collect();
        Ok(groups.join("-"))
    }

    /// A salt for a new data file.
    ///
    /// # Errors
    /// As [`make_passphrase`](Self::make_passphrase).
    pub fn make_salt() -> Result<String, String> {
        Ok(hex::encode(random::<16>()?))
    }

    /// True for what a browser shows that has given the passphrase.
    #[must_use]
    pub fn knows(&self, shown: &str) -> bool {
        is_same(shown.as_bytes(), self.secret.token.as_bytes())
    }

    async fn enter(&self, passphrase: String) -> Result<String, Problem> {
        struct Waiting<'a>(&'a AtomicUsize);
        impl Drop for Waiting<'_> {
            fn drop(&mut self) {
                self.0.fetch_sub(1, Ordering::Relaxed);
            }
        }
        let before = self.waiting.fetch_add(1, Ordering::Relaxed);
        let _waiting = Waiting(&self.waiting);
        if before >= MOST_WAITING {
            return Err(Problem::too_many(MOST_WAITING));
        }
        let mut wrong = self.wrong.lock().await;
        rocket::tokio::time::sleep(wait(*wrong)).await;
        let salt = self.salt.clone();
        let given = spawn_blocking(move || secret(&passphrase, &salt)).await.ok().flatten();
        if given.is_some_and(|given| is_same(&given.hash, &self.secret.hash)) {
            *wrong = 0;
            return Ok(self.secret.token.clone());
        }
        *wrong += 1;
        tracing::warn!("a wrong passphrase was given, {} in a row", *wrong);
        Err(Problem::not_the_passphrase(wait(*wrong).as_secs_f64()))
    }
}

/// Each wrong attempt doubles the wait for the next.
fn wait(wrong: u32) -> Duration {
    match wrong {
        0 => Duration::ZERO,
        more => (Duration::from_millis(250) * 2u32.saturating_pow(more.min(10))).min(LONGEST),
    }
}

fn random<const COUNT: usize>() -> Result<[u8; COUNT], String> {
    let mut bytes = [0; COUNT];
    getrandom::fill(&mut bytes)
        .map_err(|error| format!("the system gives no random numbers ({error})"))?;
    Ok(bytes)
}

fn secret(passphrase: &str, salt: &str) -> Option<Secret> {
    let mut both = [0; 64];
    Argon2::default().hash_password_into(passphrase.as_bytes(), salt.as_bytes(), &mut both).ok()?;
    let mut hash = [0; 32];
    hash.copy_from_slice(&both[..32]);
    Some(Secret { hash, token: hex::encode(&both[32..]) })
}

/// Compares in a time that does not tell where two differ.
fn is_same(one: &[u8], other: &[u8]) -> bool {
    one.len() == other.len() && one.iter().zip(other).fold(0, |all, (a, b)| all | (a ^ b)) == 0
}

/// The passphrase, given.
#[derive(Deserialize, JsonSchema, TS)]
pub struct PassphraseEntry {
    passphrase: String,
}

/// Lets a browser in that gives the passphrase.
#[post("/enter", data = "<entry>")]
pub async fn enter(
    guard: &State<Option<std::sync::Arc<Guard>>>,
    cookies: &CookieJar<'_>,
    entry: crate::api::Body<PassphraseEntry>,
) -> Result<Json<bool>, Problem> {
    let Some(guard) = guard.as_ref() else { return Ok(Json(true)) };
    let passphrase: String = entry.0.passphrase.trim().chars().take(200).collect();
    let token = guard.enter(passphrase).await?;
    let cookie = Cookie::build((Guard::COOKIE, token))
        .path("/")
        .http_only(true)
        .same_site(SameSite::Strict)
        .permanent();
    cookies.add(cookie);
    Ok(Json(true))
}
