//! Stages that remember: each is a pure function of its input, so what it made of the same input serves again.

use std::any::Any;
use std::fmt;
use std::io::{BufWriter, Write};
use std::sync::Arc;

use serde::Serialize;
use sha2::{Digest, Sha256};

use crate::error::InputError;

/// What a stage's result is known by: a hash of the stage and of all that it reads.
#[derive(Clone, Copy, PartialEq, Eq, Hash)]
pub struct Key([u8; 16]);

impl Key {
    /// The key of what a stage makes of an input.
    #[must_use]
    pub fn of(stage: &str, input: &impl Serialize) -> Self {
        let mut hash = Sha256::new();
        hash.update(stage);
        let mut buffered = BufWriter::new(&mut hash);
        // Neither hashing nor these inputs, whose maps have words for keys, can fail.
        let _written = serde_json::to_writer(&mut buffered, input);
        let _flushed = buffered.flush();
        drop(buffered);
        let mut key = [0; 16];
        key.copy_from_slice(&hash.finalize()[..16]);
        Self(key)
    }
}

impl fmt::Display for Key {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str(&hex::encode(self.0))
    }
}

impl fmt::Debug for Key {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        fmt::Display::fmt(self, out)
    }
}

impl Serialize for Key {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

/// What a stage made.
#[derive(Clone)]
pub struct Made {
    /// The stage's name.
    pub stage: &'static str,
    /// About how many bytes it takes.
    pub weight: usize,
    value: Arc<dyn Any + Send + Sync>,
}

/// What can be remembered.
pub trait Weighty: Any + Send + Sync {
    /// About how many bytes it takes.
    fn weight(&self) -> usize;
}

/// Who remembers what stages made.
pub trait Memory: Sync {
    /// What is remembered under the key, or else what `make` makes.
    ///
    /// # Errors
    /// What `make` says.
    fn recall(
        &self,
        key: Key,
        make: &dyn Fn() -> Result<Made, Vec<InputError>>,
    ) -> Result<Made, Vec<InputError>>;
}

/// What a stage makes of an input, made anew or remembered, and under which key.
///
/// # Errors
/// What `make` says; it is not remembered.
pub fn recalled<T: Weighty>(
    memory: &dyn Memory,
    stage: &'static str,
    input: &impl Serialize,
    make: impl Fn() -> Result<T, Vec<InputError>>,
) -> Result<(Key, Arc<T>), Vec<InputError>> {
    let key = Key::of(stage, input);
    let made = memory.recall(key, &|| {
        let value = make()?;
        Ok(Made { stage, weight: value.weight(), value: Arc::new(value) })
    })?;
    match made.value.downcast() {
        Ok(value) => Ok((key, value)),
        // Two stages do not share a key, since it says which it is.
        Err(_) => Ok((key, Arc::new(make()?))),
    }
}

/// Remembers nothing.
#[derive(Debug, Clone, Copy)]
pub struct Forgetful;

impl Memory for Forgetful {
    fn recall(
        &self,
        _: Key,
        make: &dyn Fn() -> Result<Made, Vec<InputError>>,
    ) -> Result<Made, Vec<InputError>> {
        make()
    }
}

/// Bytes of one element of a path, with its share of what holds it.
pub(crate) const ELEMENT: usize = size_of::<kurbo::PathEl>();
