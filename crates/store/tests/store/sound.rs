//! What the store does with what cannot be: rows it cannot read, servers set up otherwise, starts cut off.

use sqlx::MySqlPool;
use ulvek_core::picture::TouchTest;
use ulvek_core::studio::Studio;
use ulvek_store::{
    LogAsked, MIGRATIONS, NewPhotograph, SetupError, SetupLock, StoreError, Wanted, add_photograph,
    create_studio, find_photograph, find_picture, load_studio, photographs_of,
    photographs_of_studio, save_picture, save_settings, search_log, studio_state, was_sent,
    zone_of,
};
use ulvek_testkit::{at, picture, studio};
use uuid::Uuid;

/// Names beyond every character set but the widest.
const NAMES: [&str; 3] = ["Стекло и туман", "灯と霧", "Lamp 🔦 & glass"];

/// A studio with a picture that was touched, kept; its key.
pub async fn touched(pool: &MySqlPool, name: &str) -> Uuid {
    let mut one = picture("p");
    let step = one.steps[0].id.clone();
    one.tests = vec![TouchTest { at: at(), step, felt: ulvek_core::picture::Touch::Dry }];
    one.title = name.into();
    let mut tx = pool.begin().await.unwrap();
    let id = create_studio(
        &mut tx,
        &Studio { name: name.into(), ..studio(vec![one, picture("q")]) },
        at(),
    )
    .await
    .unwrap();
    tx.commit().await.unwrap();
    id
}

pub async fn run(pool: &MySqlPool, sql: &'static str) {
    sqlx::raw_sql(sql).execute(pool).await.unwrap();
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_row_that_cannot_be_read_is_left_out_and_named(pool: MySqlPool) {
    let id = touched(&pool, "Fog lamp").await;
    run(&pool, "UPDATE log_entry SET at = '0000-00-00' WHERE kind = 'touched'").await;
    run(&pool, "UPDATE picture SET body = '{}' WHERE code = 'q'").await;
    let mut conn = pool.acquire().await.unwrap();
    let stored = load_studio(&mut conn, id).await.unwrap();
    let named: Vec<&str> = stored.unread.iter().map(|row| row.what.as_str()).collect();
    assert_eq!(named.len(), 2, "{named:?}");
    assert!(
        named[0].starts_with("entry ")
            && named[0].ends_with("of the log of \"Fog lamp\" (touched)")
    );
    assert_eq!(named[1], "the picture \"q\"");
    assert_eq!(stored.pictures.len(), 1, "what can be read is there");
    assert!(stored.pictures[0].picture.tests.is_empty());
    // The migration mends what a leap second left, wherever it runs again.
    let mend = MIGRATIONS.iter().find(|m| m.version == 16).unwrap();
    sqlx::raw_sql(mend.sql.clone()).execute(&mut *conn).await.unwrap();
    let stored = load_studio(&mut conn, id).await.unwrap();
    assert_eq!(stored.unread.len(), 1);
    assert_eq!(stored.pictures[0].picture.tests[0].at, at(), "the moment it was entered stands in");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn settings_shelf_and_air_that_cannot_be_read_stand_as_they_were_kept_last(pool: MySqlPool) {
    let id = touched(&pool, "Fog lamp").await;
    let mut conn = pool.acquire().await.unwrap();
    let before = load_studio(&mut conn, id).await.unwrap();
    run(&pool, "UPDATE studio SET settings = '{}'").await;
    run(&pool, "UPDATE shelf SET body = '[]'").await;
    run(&pool, "UPDATE air SET body = '{\"usual\": [900, 0.5, 0.1]}'").await;
    let stored = load_studio(&mut conn, id).await.unwrap();
    assert_eq!(stored.studio, before.studio);
    assert_eq!(zone_of(&mut conn, id).await.unwrap(), before.studio.hours.zone());
    let named: Vec<&str> = stored.unread.iter().map(|row| row.what.as_str()).collect();
    assert_eq!(named.len(), 3, "{named:?}");
    assert!(named.iter().all(|what| what.contains(", as of ")), "{named:?}");
    // The next edit keeps them whole again.
    save_settings(&mut conn, id, stored.version, &stored.studio, "edit", at()).await.unwrap();
    let unread = load_studio(&mut conn, id).await.unwrap().unread;
    assert!(!unread.iter().any(|row| row.what.contains("settings")), "{unread:?}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn what_the_database_keeps_otherwise_than_written_is_refused(pool: MySqlPool) {
    let id = touched(&pool, "Fog lamp").await;
    let mut conn = pool.acquire().await.unwrap();
    let stored = load_studio(&mut conn, id).await.unwrap();
    let refused = |done: Result<i64, StoreError>| matches!(done, Err(StoreError::Unreadable(_)));
    run(&pool, "CREATE TRIGGER t BEFORE UPDATE ON studio FOR EACH ROW SET NEW.name = 'other'")
        .await;
    assert!(refused(save_settings(&mut conn, id, 1, &stored.studio, "edit", at()).await));
    run(
        &pool,
        "CREATE TRIGGER l BEFORE INSERT ON log_entry FOR EACH ROW SET NEW.at = '2027-01-01'",
    )
    .await;
    let mut one = stored.pictures[0].picture.clone();
    one.tests.clear();
    one.steps[0].wet_film_um = Some(77.0);
    let saved = save_picture(&mut conn, stored.pictures[0].id, 1, &one, "edit", at()).await;
    assert!(refused(saved));
}

#[sqlx::test(migrations = false)]
async fn any_name_is_kept_whatever_character_set_the_server_has(pool: MySqlPool) {
    run(
        &pool,
        "SET @q = CONCAT('ALTER DATABASE `', DATABASE(), '` CHARACTER SET latin1'); \
        PREPARE s FROM @q; EXECUTE s",
    )
    .await;
    let mut lock = SetupLock::take(&pool).await.unwrap();
    lock.bring_up_to_date().await.unwrap();
    lock.release().await;
    let mut conn = pool.acquire().await.unwrap();
    for name in NAMES {
        let id = touched(&pool, name).await;
        let stored = load_studio(&mut conn, id).await.unwrap();
        assert_eq!(
            (stored.studio.name.as_str(), stored.studio.pictures[0].title.as_str()),
            (name, name)
        );
        let new = NewPhotograph {
            taken_at: at(),
            step: None,
            caption: name.into(),
            size: (4, 3),
            whole: vec![1],
            small: vec![1],
        };
        let shown = stored.pictures[0].id;
        add_photograph(&mut conn, shown, &new, at()).await.unwrap();
        assert_eq!(photographs_of(&mut conn, shown).await.unwrap()[0].caption, name);
    }
}

#[sqlx::test(migrations = false)]
async fn applications_that_start_together_set_up_one_after_the_other(pool: MySqlPool) {
    let start = async || {
        let mut lock = SetupLock::take(&pool).await?;
        let done = lock.bring_up_to_date().await;
        lock.release().await;
        done
    };
    let (a, b, c) = tokio::join!(start(), start(), start());
    assert!(a.is_ok() && b.is_ok() && c.is_ok(), "{a:?} {b:?} {c:?}");
}

#[sqlx::test(migrations = false)]
async fn a_start_that_was_cut_off_is_gone_on_with(pool: MySqlPool) {
    let bring = async || SetupLock::take(&pool).await?.bring_up_to_date().await;
    // A first start, cut off in the middle of a step that cannot be run twice.
    MIGRATIONS.run_to(4, &pool).await.unwrap();
    run(&pool, "UPDATE _sqlx_migrations SET success = FALSE WHERE version = 4").await;
    bring().await.unwrap();
    // An upgrade that was cut off in a step that can.
    let id = touched(&pool, "Fog lamp").await;
    run(&pool, "UPDATE _sqlx_migrations SET success = FALSE WHERE version = 16").await;
    bring().await.unwrap();
    let mut conn = pool.acquire().await.unwrap();
    assert_eq!(load_studio(&mut conn, id).await.unwrap().pictures.len(), 2);
    // An older one that was cut off with studios in it: nothing is touched, and it is said in words.
    run(&pool, "UPDATE _sqlx_migrations SET success = FALSE WHERE version = 15").await;
    let told = bring().await.unwrap_err();
    assert!(matches!(told, SetupError::HalfWay(15)));
    assert!(told.to_string().contains("bring back the copy"), "{told}");
    assert_eq!(load_studio(&mut conn, id).await.unwrap().pictures.len(), 2);
    // A database of a later version.
    run(&pool, "UPDATE _sqlx_migrations SET success = TRUE, version = 999 WHERE version = 15")
        .await;
    assert!(matches!(bring().await.unwrap_err(), SetupError::Newer(999)));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_is_read_without_a_table_on_the_disk_of_the_database(pool: MySqlPool) {
    let id = touched(&pool, "Fog lamp").await;
    let mut conn = pool.acquire().await.unwrap();
    let asked = LogAsked { words: "lamp dry".into(), page: (0, 50), ..LogAsked::default() };
    load_studio(&mut conn, id).await.unwrap();
    photographs_of_studio(&mut conn, id).await.unwrap();
    studio_state(&mut conn, id).await.unwrap();
    search_log(&mut conn, id, &asked).await.unwrap();
    let made: (String, String) =
        sqlx::query_as("SHOW SESSION STATUS LIKE 'Created_tmp_disk_tables'")
            .fetch_one(&mut *conn)
            .await
            .unwrap();
    assert_eq!(made.1, "0");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn an_id_counts_for_one_kind_of_entry_about_one_picture(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let (entry, one, other) = (Uuid::now_v7(), Uuid::now_v7(), Uuid::now_v7());
    for (kind, of, before) in [
        ("touched", one, false),
        ("touched", one, true),
        ("touched", other, false),
        ("laid", one, false),
        ("laid", one, true),
    ] {
        assert_eq!(
            was_sent(&mut conn, entry, (kind, of), at()).await.unwrap(),
            before,
            "{kind} {of}"
        );
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn nothing_is_found_in_a_studio_that_was_taken_away(pool: MySqlPool) {
    let id = touched(&pool, "Fog lamp").await;
    let mut conn = pool.acquire().await.unwrap();
    let stored = load_studio(&mut conn, id).await.unwrap();
    let shown = stored.pictures[0].id;
    let new = NewPhotograph {
        taken_at: at(),
        step: None,
        caption: String::new(),
        size: (4, 3),
        whole: vec![1],
        small: vec![1],
    };
    let photograph = add_photograph(&mut conn, shown, &new, at()).await.unwrap();
    assert_eq!(find_picture(&mut conn, shown, Wanted::There).await.unwrap(), id);
    assert_eq!(find_photograph(&mut conn, photograph, Wanted::There).await.unwrap().picture, shown);
    ulvek_store::delete_studio(&mut conn, id, 1, at()).await.unwrap();
    for wanted in [Wanted::There, Wanted::AlsoTakenAway] {
        let picture = find_picture(&mut conn, shown, wanted).await;
        assert!(matches!(picture, Err(StoreError::NotFound)));
        let shot = find_photograph(&mut conn, photograph, wanted).await;
        assert!(matches!(shot, Err(StoreError::NotFound)));
    }
}
