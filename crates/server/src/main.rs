//! The `ulvek` command.

use chrono::Utc;
use clap::{Parser, Subcommand};
use std::io::Write;
use std::path::PathBuf;
use std::process::ExitCode;
use tracing_subscriber::EnvFilter;
use ulvek_server::commands::{self, Effort, Simulate};
use ulvek_server::database::PrivateDatabase;
use ulvek_server::doors::PublicUrl;
use ulvek_server::formats::{self, Moment};
use ulvek_server::serve::{Settings, serve};
use ulvek_server::signals::{AtOnce, Stop};
use ulvek_server::web::{catalogue, openapi};

/// Many threads take and give back many small pieces: with the one of the C library a fifth of an answer's time
/// goes there, and what is given back stays with the thread that gave it.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// When is each coat dry, what goes into the cup, when to work, when to varnish.
#[derive(Parser)]
#[command(name = "ulvek", version)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// When each laid coat reaches each state.
    Simulate {
        /// A studio document, or - for standard input.
        studio: PathBuf,
        /// The reference grid instead of the planning grid.
        #[arg(long)]
        fine: bool,
        /// Describe the film at this moment too (RFC 3339).
        #[arg(long)]
        at: Option<Moment>,
    },
    /// When to do each step.
    Plan {
        /// A studio document, or - for standard input.
        studio: PathBuf,
        /// Nothing is planned before (RFC 3339); now when not given.
        #[arg(long)]
        from: Option<Moment>,
        /// Time for the search [s]; without it a moderate effort that no clock decides.
        #[arg(long, value_parser = positive)]
        seconds: Option<f64>,
        /// Sampled futures for the odds, at most 10 000; without it up to 120.
        #[arg(long, value_parser = clap::value_parser!(u32).range(1..=10_000))]
        sampled: Option<u32>,
    },
    /// What is seen from the front after each coat, laid or planned.
    Colour {
        /// A studio document, or - for standard input.
        studio: PathBuf,
        /// Only the picture of this name.
        #[arg(long)]
        picture: Option<String>,
    },
    /// What the rules of the trade and of safety say; exit status 1 if one says stop.
    Check {
        /// A studio document, or - for standard input.
        studio: PathBuf,
    },
    /// An empty studio with the starter shelf, as a document: the way to begin one by hand.
    New {
        /// Its name.
        #[arg(long, default_value = "Studio")]
        name: String,
        /// Its time zone, as in Europe/Oslo.
        #[arg(long, default_value = "UTC")]
        time_zone: String,
    },
    /// The application.
    Serve {
        /// Load the demo studio if there is no studio yet.
        #[arg(long)]
        demo: bool,
        /// Address to listen on; port 0 takes any free one.
        #[arg(long, default_value = "127.0.0.1:4880", env = "ULVEK_LISTEN")]
        listen: String,
        /// Listen on an address that others can reach too. There are no accounts: whoever reaches
        /// it reads and changes everything.
        #[arg(long, env = "ULVEK_OPEN_TO_NETWORK")]
        open_to_network: bool,
        /// An address under which a proxy shows the application, as in https://studio.example; may
        /// be said more than once, or with commas between.
        #[arg(long = "public-url", env = "ULVEK_PUBLIC_URL", value_delimiter = ',')]
        public_urls: Vec<PublicUrl>,
        /// Folder of the private database.
        #[arg(long, default_value = "data", env = "ULVEK_DATA")]
        data: PathBuf,
        /// Folder of the built front end.
        #[arg(long, default_value = "web/dist", env = "ULVEK_FRONT")]
        front: PathBuf,
        /// An existing MariaDB instead of the private one.
        #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
        database_url: Option<String>,
        /// Show this time now (RFC 3339), for tests and screenshots.
        #[arg(long, env = "ULVEK_CLOCK")]
        clock: Option<Moment>,
    },
    /// A private MariaDB for tests: prints its address and runs until told to stop.
    Database {
        /// Its folder; what is in it does not survive a crash.
        #[arg(long)]
        data: PathBuf,
    },
    /// Prints the JSON Schema of the studio document.
    Schema {
        /// That of the record sheet instead.
        #[arg(long)]
        record: bool,
    },
    /// Prints the OpenAPI document.
    Openapi,
    /// Prints what the application knows of the trade, as the page reads it.
    Catalogue,
}

/// Seconds above nothing, at most a day.
fn positive(text: &str) -> Result<f64, String> {
    match text.parse::<f64>() {
        Ok(s) if s > 0.0 && s <= 86_400.0 => Ok(s),
        _ => Err("give seconds above 0 and at most 86400".to_owned()),
    }
}

fn main() -> ExitCode {
    let arguments = Arguments::parse();
    match run(arguments.command) {
        Ok(code) => code,
        Err(error) => {
            eprintln!("ulvek: {error}");
            ExitCode::from(2)
        }
    }
}

fn run(command: Command) -> Result<ExitCode, Box<dyn std::error::Error>> {
    match command {
        Command::Simulate { studio, fine, at } => {
            let document = commands::read_studio(&studio)?;
            Ok(print(&commands::simulate(&document, Simulate { fine, at: at.map(Moment::utc) })?))
        }
        Command::Plan { studio, from, seconds, sampled } => {
            let document = commands::read_studio(&studio)?;
            let effort = Effort { seconds, sampled };
            Ok(print(&commands::plan(&document, from.map_or_else(Utc::now, Moment::utc), effort)))
        }
        Command::Colour { studio, picture } => {
            let document = commands::read_studio(&studio)?;
            let seen = commands::colour(&document, picture.as_deref())?;
            for sentence in commands::untold(&document, picture.as_deref()) {
                eprintln!("ulvek: {sentence}");
            }
            Ok(print(&seen))
        }
        Command::Check { studio } => {
            let document = commands::read_studio(&studio)?;
            let (findings, stop) = commands::check(&document, Utc::now())?;
            let printed = print(&findings);
            Ok(if stop { ExitCode::from(1) } else { printed })
        }
        Command::New { name, time_zone } => Ok(print(&commands::new(&name, &time_zone)?)),
        Command::Serve {
            demo,
            listen,
            open_to_network,
            public_urls,
            data,
            front,
            database_url,
            clock,
        } => {
            tracing_subscriber::fmt()
                .json()
                .with_writer(std::io::stderr)
                .with_env_filter(
                    EnvFilter::try_from_env("ULVEK_LOG").unwrap_or_else(|_| EnvFilter::new("warn")),
                )
                .init();
            // One form for everything that is logged, panics too.
            std::panic::set_hook(Box::new(|panic| {
                let at = panic.location().map(ToString::to_string);
                tracing::error!(at, panic = panic.payload_as_str(), "a panic");
            }));
            let settings = Settings {
                listen,
                open_to_network,
                public_urls,
                data,
                front,
                database_url,
                demo,
                clock: clock.map(Moment::utc),
            };
            tokio::runtime::Runtime::new()?.block_on(serve(settings))?;
            Ok(ExitCode::SUCCESS)
        }
        Command::Database { data } => tokio::runtime::Runtime::new()?.block_on(async {
            let at_once = AtOnce::default();
            let stop = Stop::listen(at_once.clone())?;
            let database = tokio::select! {
                started = PrivateDatabase::start(&data, false) => started?,
                () = stop.told() => return Ok(ExitCode::SUCCESS),
            };
            database.set_up()?;
            let last = database.last_word();
            *at_once.lock().unwrap_or_else(std::sync::PoisonError::into_inner) = Some(last);
            writeln!(std::io::stdout(), "{}", database.url())?;
            stop.told().await;
            database.stop().await;
            Ok::<_, Box<dyn std::error::Error>>(ExitCode::SUCCESS)
        }),
        Command::Schema { record: false } => Ok(print(&formats::json_schema())),
        Command::Schema { record: true } => Ok(print(&formats::record_schema())),
        Command::Openapi => Ok(print(&openapi())),
        Command::Catalogue => Ok(print(&catalogue())),
    }
}

/// Prints JSON on standard output; a reader that went away is no fault.
fn print(value: &serde_json::Value) -> ExitCode {
    let mut out = std::io::stdout().lock();
    let text = serde_json::to_string_pretty(value).unwrap_or_default();
    match writeln!(out, "{text}") {
        Ok(()) => ExitCode::SUCCESS,
        Err(e) if e.kind() == std::io::ErrorKind::BrokenPipe => ExitCode::SUCCESS,
        Err(_) => ExitCode::from(2),
    }
}
