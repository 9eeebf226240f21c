//! The store against a real MariaDB.
#![allow(clippy::unwrap_used)]

use chrono::{DateTime, Utc};
use sqlx::MySqlPool;
use ulvek_core::air::{Air, AirSeries, Room};
use ulvek_core::picture::{Part, Picture, Step, StepKind};
use ulvek_core::seal::{
    Carrier, Purpose, SealAnyway, SealRecord, SealTrouble, Strokes, TroubleFound, VarnishChoice,
};
use ulvek_core::studio::{
    AirSource, Finish, OwnWay, RoomAhead, Stock, StudioDocument, StudioHours, Tightness, Trouble,
    Tub, TubCheck, starter_shelf,
};
use ulvek_store::{
    Direction, MIGRATIONS, NewPhotograph, Rendition, StoreError, add_photograph, create_picture,
    create_studio, delete_photograph, delete_picture, hold_shelf, list_studios, load_picture,
    load_rendition, load_studio, name_photograph, photographs_of, photographs_of_studio,
    restore_photograph, save_picture, save_shelf, step_picture, step_shelf,
};
use uuid::Uuid;

fn at() -> DateTime<Utc> {
    "2027-01-14T16:34:00.123456Z".parse().unwrap()
}

fn picture(id: &str) -> Picture {
    let glaze = Step {
        name: Some("Glaze — première \"bleue\" 🜄".into()),
        mix: vec![Part { material: "glazing".into(), parts: 1.0 / 3.0 }],
        laid_at: Some(at()),
        after: Some(vec![]),
        ..Step::usual("s1", StepKind::Glaze)
    };
    Picture { due: at().date_naive().succ_opt(), ..Picture::new(id, (24.5, 30.0), vec![glaze]) }
}

fn studio(pictures: Vec<Picture>) -> StudioDocument {
    let air = Air::try_new(20.4, 0.47, 0.15).unwrap();
    StudioDocument {
        flat_places: 2,
        materials: starter_shelf().unwrap(),
        pictures,
        ..StudioDocument::new(
            "Test room",
            StudioHours::try_new(chrono_tz::Europe::Oslo, vec![], vec![]).unwrap(),
            AirSeries::new(air, vec![(1.5e9, air)]),
        )
    }
}

async fn one_picture(pool: &MySqlPool) -> Uuid {
    let mut tx = pool.begin().await.unwrap();
    let id = create_studio(&mut tx, &studio(vec![picture("p")]), at()).await.unwrap();
    let stored = load_studio(&mut tx, id).await.unwrap();
    tx.commit().await.unwrap();
    stored.pictures[0].id
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_is_read_as_it_was_written(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let written = studio(vec![picture("p"), picture("P")]);
    let id = create_studio(&mut conn, &written, at()).await.unwrap();
    let read = load_studio(&mut conn, id).await.unwrap();
    assert_eq!(read.document.pictures, written.pictures, "names differ by case alone");
    assert_eq!(read.document.materials, written.materials);
    assert_eq!(read.document.air, written.air);
    assert_eq!(read.document.hours, written.hours);
    assert_eq!((read.version, read.pictures[0].version), (1, 1));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_that_fails_half_way_leaves_nothing(pool: MySqlPool) {
    let mut tx = pool.begin().await.unwrap();
    let twice = studio(vec![picture("same"), picture("same")]);
    let failed = create_studio(&mut tx, &twice, at()).await;
    assert!(matches!(failed, Err(StoreError::Overtaken)), "{failed:?}");
    drop(tx);
    let mut conn = pool.acquire().await.unwrap();
    assert_eq!(list_studios(&mut conn, false).await.unwrap(), []);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn of_many_edits_at_once_exactly_one_is_kept(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let edit = async |n: usize| {
        let mut tx = pool.begin().await.unwrap();
        let title = format!("edit {n}");
        let changed = Picture { title: title.clone(), ..picture("p") };
        let saved = save_picture(&mut tx, id, 1, &changed, &title, at()).await;
        if saved.is_ok() {
            tx.commit().await.unwrap();
        }
        (title, saved)
    };
    let (a, b, c, d) = tokio::join!(edit(1), edit(2), edit(3), edit(4));
    let (kept, lost): (Vec<_>, Vec<_>) = [a, b, c, d].into_iter().partition(|(_, s)| s.is_ok());
    assert_eq!(kept.len(), 1);
    for (_, refused) in lost {
        assert!(matches!(refused, Err(StoreError::Stale { given: 1, current: 2 })), "{refused:?}");
    }
    let mut conn = pool.acquire().await.unwrap();
    let stored = load_picture(&mut conn, id).await.unwrap();
    assert_eq!(stored.picture.title, kept[0].0);
    assert_eq!(stored.history.undo, Some(kept[0].0.clone()));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn revisions_are_kept_back_to_a_limit_and_each_leads_to_its_picture(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    for n in 1..=205 {
        let changed = Picture { title: format!("edit {n}"), ..picture("p") };
        save_picture(&mut conn, id, n, &changed, &format!("edit {n}"), at()).await.unwrap();
    }
    let mut version = 206;
    let mut undone = 0;
    loop {
        match step_picture(&mut conn, id, version, Direction::Undo).await {
            Ok(next) => version = next,
            Err(StoreError::NoSuchRevision) => break,
            Err(other) => unreachable!("{other:?}"),
        }
        undone += 1;
        let title = load_picture(&mut conn, id).await.unwrap().picture.title;
        assert_eq!(title, format!("edit {}", 205 - undone));
    }
    assert_eq!(undone, 200);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_stale_undo_changes_nothing(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    let changed = Picture { title: "edited".into(), ..picture("p") };
    save_picture(&mut conn, id, 1, &changed, "edit", at()).await.unwrap();
    let mut tx = pool.begin().await.unwrap();
    let stale = step_picture(&mut tx, id, 1, Direction::Undo).await;
    assert!(matches!(stale, Err(StoreError::Stale { given: 1, current: 2 })), "{stale:?}");
    drop(tx);
    let stored = load_picture(&mut conn, id).await.unwrap();
    assert_eq!(
        (stored.picture.title.as_str(), stored.history.undo.as_deref()),
        ("edited", Some("edit"))
    );
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn pictures_keep_the_order_they_were_added_in(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let id = create_studio(&mut conn, &studio(vec![]), at()).await.unwrap();
    for name in ["c", "a", "b"] {
        create_picture(&mut conn, id, &picture(name), at()).await.unwrap();
    }
    let read = load_studio(&mut conn, id).await.unwrap();
    let names: Vec<&str> = read.document.pictures.iter().map(|p| p.id.as_str()).collect();
    assert_eq!(names, ["c", "a", "b"]);
    let nobody = load_studio(&mut conn, Uuid::now_v7()).await;
    assert!(matches!(nobody, Err(StoreError::NotFound)));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn two_transactions_that_lock_each_other_out_are_told_to_ask_again(pool: MySqlPool) {
    let mut tx = pool.begin().await.unwrap();
    let both = studio(vec![picture("a"), picture("b")]);
    let id = create_studio(&mut tx, &both, at()).await.unwrap();
    let stored = load_studio(&mut tx, id).await.unwrap();
    tx.commit().await.unwrap();
    let [a, b] = [stored.pictures[0].id, stored.pictures[1].id];
    let edit = async |first: Uuid, second: Uuid, met: &tokio::sync::Barrier| {
        let mut tx = pool.begin().await.unwrap();
        save_picture(&mut tx, first, 1, &picture("x"), "edit", at()).await.unwrap();
        met.wait().await;
        let second = save_picture(&mut tx, second, 1, &picture("x"), "edit", at()).await;
        if second.is_ok() {
            tx.commit().await.unwrap();
        }
        second
    };
    let met = tokio::sync::Barrier::new(2);
    let (one, other) = tokio::join!(edit(a, b, &met), edit(b, a, &met));
    let lost = [&one, &other].into_iter().filter(|r| r.is_err()).collect::<Vec<_>>();
    assert_eq!(lost.len(), 1, "one of them goes through: {one:?} {other:?}");
    assert!(matches!(lost[0], Err(StoreError::InTheWay(_))), "{lost:?}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_shelf_is_an_aggregate_of_its_own(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let mut written = studio(vec![picture("p")]);
    let id = create_studio(&mut conn, &written, at()).await.unwrap();
    written.materials[0].archived = true;
    written.tubs.push(Tub {
        id: "t".into(),
        name: "Tub".into(),
        mix: vec![Part { material: "glazing".into(), parts: 1.0 }],
        mixed_at: at(),
        mixed_ml: 20.0,
        level: Stock { ml: 20.0, at: at() },
        tightness: Tightness::Palette,
        keeps_days: Some(2.0),
        checks: vec![TubCheck { at: at(), found: vec![Trouble::Contamination] }],
        archived: false,
    });
    let way = OwnWay {
        id: "w".into(),
        name: "Way".into(),
        why: "because".into(),
        steps: vec![Step::usual("s1", StepKind::Drawing)],
    };
    written.ways.push(way);
    assert_eq!(save_shelf(&mut conn, id, 1, &written, "archive", at()).await.unwrap(), 2);
    let stale = save_shelf(&mut conn, id, 1, &written, "again", at()).await;
    assert!(matches!(stale, Err(StoreError::Stale { given: 1, current: 2 })), "{stale:?}");
    let read = load_studio(&mut conn, id).await.unwrap();
    assert_eq!(read.document.materials, written.materials);
    assert_eq!((read.document.tubs, read.document.ways), (written.tubs, written.ways));
    step_shelf(&mut conn, id, 2, Direction::Undo).await.unwrap();
    let back = load_studio(&mut conn, id).await.unwrap();
    assert!(back.document.tubs.is_empty() && !back.document.materials[0].archived);
    assert_eq!(back.version, 1, "the settings are another aggregate");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_shelf_cannot_change_under_an_edit_that_holds_it(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let written = studio(vec![picture("p")]);
    let id = create_studio(&mut conn, &written, at()).await.unwrap();
    let mut holder = pool.begin().await.unwrap();
    hold_shelf(&mut holder, id).await.unwrap();
    sqlx::query("SET innodb_lock_wait_timeout = 1").execute(&mut *conn).await.unwrap();
    let waits = save_shelf(&mut conn, id, 1, &written, "meanwhile", at()).await;
    assert!(matches!(waits, Err(StoreError::InTheWay(_))), "{waits:?}");
    drop(holder);
    assert_eq!(save_shelf(&mut conn, id, 1, &written, "after", at()).await.unwrap(), 2);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_record_of_sealing_and_the_room_ahead_are_read_as_they_were_written(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let mut sealed = picture("p");
    sealed.seal = SealRecord {
        choice: Some(VarnishChoice {
            carrier: Carrier::Solvent,
            finish: Finish::Satin,
            purpose: Purpose::Handled,
            coats: 5,
            isolation: true,
            isolation_reason: Some("it goes to a damp house".into()),
            strokes: Strokes::Crossed,
            edge_cm: 1.5,
        }),
        inspected_at: Some(at()),
        anyway: vec![SealAnyway {
            at: at(),
            step: "s1".into(),
            reason: "the van is at the door".into(),
            against: vec!["The film is cured".into()],
        }],
        troubles: vec![TroubleFound { at: at(), step: "s1".into(), trouble: SealTrouble::Cloud }],
    };
    let mut written = studio(vec![sealed]);
    written.room = RoomAhead {
        follows: Room { held_c: None, lag_h: 3.0, ..Room::default() },
        source: AirSource::Readings,
        taken_at: Some(at()),
    };
    let id = create_studio(&mut conn, &written, at()).await.unwrap();
    let read = load_studio(&mut conn, id).await.unwrap().document;
    assert_eq!(read.pictures[0].seal, written.pictures[0].seal);
    assert_eq!(read.room, written.room);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn photographs_belong_to_their_picture_and_go_and_come_with_a_word(pool: MySqlPool) {
    let picture = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    let new = |hour: i64, caption: &str| NewPhotograph {
        taken_at: at() - chrono::Duration::hours(hour),
        step: Some("s1".into()),
        caption: caption.into(),
        size: (40, 30),
        whole: vec![1, 2, 3],
        small: vec![4],
    };
    let later = add_photograph(&mut conn, picture, &new(1, "later"), at()).await.unwrap();
    let first = add_photograph(&mut conn, picture, &new(9, "first"), at()).await.unwrap();
    let found = photographs_of(&mut conn, picture).await.unwrap();
    assert_eq!(found.iter().map(|f| f.id).collect::<Vec<_>>(), [first, later]);
    assert_eq!(found[0].taken_at, at() - chrono::Duration::hours(9));
    let small = load_rendition(&mut conn, first, Rendition::Small).await.unwrap();
    assert_eq!(small, [4]);
    // The same words again are no fault.
    for _ in 0..2 {
        name_photograph(&mut conn, (picture, first), (at(), None, "named")).await.unwrap();
    }
    delete_photograph(&mut conn, first, at()).await.unwrap();
    let gone = load_rendition(&mut conn, first, Rendition::Whole).await;
    assert!(matches!(gone, Err(StoreError::NotFound)));
    assert!(matches!(
        name_photograph(&mut conn, (picture, first), (at(), None, "too late")).await,
        Err(StoreError::NotFound)
    ));
    assert_eq!(restore_photograph(&mut conn, first).await.unwrap(), picture);
    let stored = load_picture(&mut conn, picture).await.unwrap();
    assert_eq!(photographs_of_studio(&mut conn, stored.studio).await.unwrap().len(), 2);
    delete_picture(&mut conn, picture, 1, at()).await.unwrap();
    assert_eq!(photographs_of_studio(&mut conn, stored.studio).await.unwrap().len(), 0);
    let late = add_photograph(&mut conn, picture, &new(0, "late"), at()).await;
    assert!(matches!(late, Err(StoreError::NotFound)));
}
