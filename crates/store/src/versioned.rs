//! The one way to change an aggregate: by the version it was looked at, which must still be stored.

use crate::StoreError;
use chrono::{DateTime, NaiveDate, Utc};
use serde::Serialize;
use sqlx::{MySql, MySqlConnection, QueryBuilder, Row};
use uuid::Uuid;

/// A table whose rows have a version.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Versioned {
    pub table: &'static str,
    /// The column that its rows are known by.
    pub key: &'static str,
    /// Whether its rows can be taken away and brought back.
    pub goes_and_comes: bool,
}

/// Studios with their settings.
pub(crate) const STUDIO: Versioned = Versioned { table: "studio", key: "id", goes_and_comes: true };
/// Pictures.
pub(crate) const PICTURE: Versioned =
    Versioned { table: "picture", key: "id", goes_and_comes: true };
/// Shelves.
pub(crate) const SHELF: Versioned =
    Versioned { table: "shelf", key: "studio_id", goes_and_comes: false };
/// The air of studios.
pub(crate) const AIR: Versioned =
    Versioned { table: "air", key: "studio_id", goes_and_comes: false };

/// What a column is set to.
#[derive(Debug, Clone)]
pub(crate) enum Value {
    Text(String),
    Day(Option<NaiveDate>),
    Moment(Option<DateTime<Utc>>),
}

impl Versioned {
    /// Sets columns of the row `id` that is at version `given`. Returns the new version.
    ///
    /// # Errors
    /// [`StoreError::Stale`] when another edit came first, [`StoreError::NotFound`] when there is no
    /// such row; nothing is changed then.
    pub async fn update(
        self,
        conn: &mut MySqlConnection,
        (id, given): (Uuid, i64),
        columns: impl IntoIterator<Item = (&'static str, Value)>,
    ) -> Result<i64, StoreError> {
        let columns: Vec<(&'static str, Value)> = columns.into_iter().collect();
        let mut query = QueryBuilder::<MySql>::new(format!("UPDATE {} SET ", self.table));
        for (column, value) in columns.clone() {
            query.push(column).push(" = ");
            match value {
                Value::Text(text) => query.push_bind(text),
                Value::Day(day) => query.push_bind(day),
                // As DATETIME, which goes beyond 2038; an instant would be sent as TIMESTAMP.
                Value::Moment(at) => query.push_bind(at.map(|at| at.naive_utc())),
            };
            query.push(", ");
        }
        query.push("version = version + 1 WHERE ").push(self.key).push(" = ").push_bind(id);
        query.push(" AND version = ").push_bind(given).push(self.there());
        let done = query.build().execute(&mut *conn).await?;
        if done.rows_affected() == 1 {
            self.read_back(conn, id, &columns).await?;
            return Ok(given + 1);
        }
        let current = self.version(conn, id).await?;
        Err(StoreError::Stale { given, current })
    }

    /// Holds that `columns` are read as they were written: otherwise the transaction must not be kept.
    async fn read_back(
        self,
        conn: &mut MySqlConnection,
        id: Uuid,
        columns: &[(&'static str, Value)],
    ) -> Result<(), StoreError> {
        let mut query = QueryBuilder::<MySql>::new("SELECT ");
        let mut names = query.separated(", ");
        for (column, _) in columns {
            names.push(*column);
        }
        query.push(" FROM ").push(self.table).push(" WHERE ").push(self.key).push(" = ");
        let row = query.push_bind(id).build().fetch_one(conn).await?;
        for (column, value) in columns {
            let same = match value {
                Value::Text(text) => row.try_get::<String, _>(*column)? == *text,
                Value::Day(day) => row.try_get::<Option<NaiveDate>, _>(*column)? == *day,
                Value::Moment(at) => row.try_get::<Option<DateTime<Utc>>, _>(*column)? == *at,
            };
            if !same {
                let what = format!("{column} of {} is not what was written", self.table);
                return Err(StoreError::Unreadable(what));
            }
        }
        Ok(())
    }

    /// The version that is stored.
    pub async fn version(self, conn: &mut MySqlConnection, id: Uuid) -> Result<i64, StoreError> {
        let mut query = QueryBuilder::<MySql>::new("SELECT version FROM ");
        query.push(self.table).push(" WHERE ").push(self.key).push(" = ").push_bind(id);
        query.push(self.there());
        let (version,): (i64,) = query.build_query_as().fetch_one(conn).await?;
        Ok(version)
    }

    /// Takes the row away; it can be brought back.
    pub async fn take_away(
        self,
        conn: &mut MySqlConnection,
        row: (Uuid, i64),
        at: DateTime<Utc>,
    ) -> Result<(), StoreError> {
        self.update(conn, row, [("deleted_at", Value::Moment(Some(at)))]).await.map(|_| ())
    }

    /// Brings a row back that was taken away; one that is there stays as it is.
    pub async fn bring_back(self, conn: &mut MySqlConnection, id: Uuid) -> Result<(), StoreError> {
        let mut query = QueryBuilder::<MySql>::new("UPDATE ");
        query.push(self.table).push(" SET deleted_at = NULL, version = version + 1 WHERE ");
        query.push(self.key).push(" = ").push_bind(id).push(" AND deleted_at IS NOT NULL");
        query.build().execute(&mut *conn).await?;
        self.version(conn, id).await.map(|_| ())
    }

    const fn there(self) -> &'static str {
        if self.goes_and_comes { " AND deleted_at IS NULL" } else { "" }
    }
}

/// A body as it is written into a column.
pub(crate) fn json(body: &impl Serialize) -> Result<String, StoreError> {
    serde_json::to_string(body).map_err(|e| StoreError::Unreadable(e.to_string()))
}
