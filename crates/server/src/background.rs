//! Long work on threads of its own, which give way to those that somebody waits at.

use std::io;
use std::thread::Builder;

/// How far background work stands back, in steps of Unix's niceness.
#[cfg(target_os = "linux")]
const NICENESS: i32 = 10;

/// Runs `work`, and the threads that it starts, behind everything else.
///
/// # Errors
/// When no thread can be started.
pub fn in_background(work: impl FnOnce() + Send + 'static) -> io::Result<()> {
    Builder::new().name("background".to_owned()).spawn(move || {
        // On Linux niceness is a thread's own, and handed down. Where it cannot be had the work is as quick.
        #[cfg(target_os = "linux")]
        let _niceness = rustix::process::nice(NICENESS);
        work();
    })?;
    Ok(())
}
