//! The server, put together.

use std::io::Write;
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::sync::Arc;

use rocket::config::{Config, LogLevel, Shutdown};
use rocket::fairing::AdHoc;
use rocket::{Build, Rocket, routes};

use crate::api::{self, Sendings, Tasks};
use crate::assets;
use crate::desk::Desk;
use crate::gate::{Guard, Journal, SafeHeaders, Trusted, trusted};
use crate::rehearsing::Pictures;
use crate::store::Store;

/// Where to listen, and for whom.
pub struct Listen {
    /// The address; loopback unless the user says otherwise.
    pub address: IpAddr,
    /// The port; 0 takes a free one.
    pub port: u16,
    /// Further host names by which the server may be asked for.
    pub names: Vec<String>,
    /// Who keeps the door, where it is open to others.
    pub guard: Option<Arc<Guard>>,
}

impl Listen {
    /// For this machine alone.
    #[must_use]
    pub const fn at_home(port: u16) -> Self {
        let address = IpAddr::V4(Ipv4Addr::LOCALHOST);
        Self { address, port, names: Vec::new(), guard: None }
    }
}

/// The server over a store. It prints its address once it listens.
#[must_use]
pub fn server(store: Store, listen: Listen) -> Rocket<Build> {
    let Listen { address, port, names, guard } = listen;
    let config = Config {
        address,
        port,
        log_level: LogLevel::Off,
        // What takes long is told to end; what does not hear of it is not waited for.
        shutdown: Shutdown { grace: 1, mercy: 0, ..Shutdown::default() },
        ..Config::release_default()
    };
    rocket::custom(config)
        .manage(Desk::new(store))
        .manage(Tasks::default())
        .manage(Arc::new(Pictures::default()))
        .manage(Sendings::default())
        .manage(guard.clone())
        .mount("/api", api::routes())
        .mount("/", assets::routes())
        .mount("/", routes![trusted::refusal])
        .register("/", api::catchers())
        .attach(Journal)
        .attach(Trusted { address, names, guard })
        .attach(SafeHeaders)
        .attach(AdHoc::on_liftoff("Address", |rocket| {
            Box::pin(async move {
                let Config { address, port, .. } = rocket.config();
                let at = SocketAddr::new(*address, *port);
                // A terminal that is gone is no reason to stop.
                let _ = writeln!(std::io::stdout(), "Aptum listens at http://{at}");
            })
        }))
        .attach(AdHoc::on_shutdown("Tasks", |rocket| {
            Box::pin(async move {
                if let Some(tasks) = rocket.state::<Tasks>() {
                    tasks.stop_all();
                }
            })
        }))
}
