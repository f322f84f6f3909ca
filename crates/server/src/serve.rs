//! The server, put together.

use std::net::IpAddr;

use rocket::config::{Config, LogLevel};
use rocket::fairing::AdHoc;
use rocket::{Build, Rocket, routes};

use crate::api::{self, Summaries, Tasks};
use crate::assets;
use crate::gate::{SafeHeaders, Trusted, trusted};
use crate::store::Store;

/// Where to listen.
#[derive(Debug, Clone)]
pub struct Listen {
    /// The address; loopback unless the user says otherwise.
    pub address: IpAddr,
    /// The port; 0 takes a free one.
    pub port: u16,
}

/// The server over a store. It prints its address once it listens.
#[must_use]
pub fn server(store: Store, listen: &Listen) -> Rocket<Build> {
    let config = Config {
        address: listen.address,
        port: listen.port,
        log_level: LogLevel::Off,
        ..Config::release_default()
    };
    let host = match listen.address {
        IpAddr::V4(address) => address.to_string(),
        IpAddr::V6(address) => format!("[{address}]"),
    };
    rocket::custom(config)
        .manage(store)
        .manage(Summaries::default())
        .manage(Tasks::default())
        .mount("/api", api::routes())
        .mount("/", assets::routes())
        .mount("/", routes![trusted::refusal])
        .register("/", api::catchers())
        .attach(Trusted { host })
        .attach(SafeHeaders)
        .attach(AdHoc::on_liftoff("Address", |rocket| {
            Box::pin(async move {
                let Config { address, port, .. } = rocket.config();
                println!("Aptum listens at http://{address}:{port}");
            })
        }))
}
