//! The `aptum` program.

fn main() -> std::process::ExitCode {
    aptum::cli::run()
}
