-- +goose Up
-- Every kind of document in one table, with one tree of revisions: boxes, the shop, batches, lists to cut, makings.
ALTER TABLE projects RENAME TO documents;
ALTER TABLE documents ADD COLUMN kind TEXT NOT NULL DEFAULT 'box';
ALTER TABLE revisions RENAME COLUMN project TO doc;
ALTER TABLE revisions RENAME COLUMN document TO body;
DROP INDEX projects_by_change;
DROP INDEX projects_by_title;
CREATE INDEX documents_by_change ON documents (kind, changed);
CREATE INDEX documents_by_title ON documents (kind, title COLLATE NOCASE);

-- Long texts that many revisions have in common, by the sum of what they say: the boxes of a batch.
CREATE TABLE texts (
    sum  TEXT PRIMARY KEY,
    text TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- The revisions of the other kinds follow those there are.
CREATE TABLE shift AS SELECT coalesce(max(id), 0) AS n FROM revisions;

INSERT INTO documents (id, kind, created, changed, title)
    SELECT 'shop', 'shop', (SELECT min(made) FROM shop_revisions), (SELECT max(made) FROM shop_revisions), 'Shop' FROM shop;
INSERT INTO revisions (id, doc, parent, body, what, burst, made, who)
    SELECT r.id + n, 'shop', r.parent + n, r.document, r.what, r.burst, r.made, r.who FROM shop_revisions r, shift
    WHERE EXISTS (SELECT 1 FROM shop) ORDER BY r.id;
UPDATE documents SET head = (SELECT s.head + n FROM shop s, shift) WHERE id = 'shop';
UPDATE shift SET n = (SELECT coalesce(max(id), 0) FROM revisions);
DROP TABLE shop;
DROP TABLE shop_revisions;

INSERT INTO documents (id, kind, created, changed, title, binned)
    SELECT id, 'list', changed, changed,
        CASE WHEN json_valid(document) THEN coalesce(json_extract(document, '$.name'), '') ELSE '' END,
        CASE WHEN gone THEN changed END FROM cutlists;
INSERT INTO revisions (id, doc, parent, body, what, burst, made, who)
    SELECT n + row_number() OVER (ORDER BY c.changed, c.id), c.id, NULL, c.document, 'As it was kept before', '', c.changed, ''
    FROM cutlists c, shift;
UPDATE shift SET n = (SELECT coalesce(max(id), 0) FROM revisions);
DROP TABLE cutlists;

-- What is done of a batch stands in its document.
CREATE TABLE ticked AS
    SELECT batch, json_group_object(ordered || '/' || stage, done) AS done FROM batch_ticks WHERE done > 0 GROUP BY batch;
CREATE TABLE went AS
    SELECT b.id AS batch, p.revision, p.document, b.changed, 'An earlier change' AS what
        FROM batch_past p JOIN batches b ON b.id = p.batch
    UNION ALL SELECT id, revision, document, changed, 'As it was kept before' FROM batches;
INSERT INTO documents (id, kind, created, changed, title, binned)
    SELECT id, 'batch', changed, changed,
        CASE WHEN json_valid(document) THEN coalesce(json_extract(document, '$.name'), '') ELSE '' END,
        CASE WHEN gone THEN changed END FROM batches;
INSERT INTO revisions (id, doc, parent, body, what, burst, made, who)
    SELECT s.n + w.at, w.batch, s.n + w.before,
        CASE WHEN t.done IS NOT NULL AND json_valid(w.document) THEN json_set(w.document, '$.done', json(t.done))
            ELSE w.document END, w.what, '', w.changed, ''
    FROM (SELECT *, row_number() OVER byBatch AS at, lag(row_number) OVER (PARTITION BY batch ORDER BY revision) AS before
            FROM (SELECT *, row_number() OVER byBatch AS row_number FROM went WINDOW byBatch AS (ORDER BY batch, revision))
            WINDOW byBatch AS (ORDER BY batch, revision)) w
        JOIN shift s LEFT JOIN ticked t ON t.batch = w.batch ORDER BY w.at;
UPDATE shift SET n = (SELECT coalesce(max(id), 0) FROM revisions);
DROP TABLE went;
DROP TABLE ticked;
DROP TABLE batch_ticks;
DROP TABLE batch_past;
DROP TABLE batches;

-- Of a making what is said can be changed; what it was made by, and how it looked, stays.
ALTER TABLE makings ADD COLUMN doc TEXT NOT NULL DEFAULT '';
ALTER TABLE makings ADD COLUMN line TEXT NOT NULL DEFAULT '';
ALTER TABLE makings ADD COLUMN picture BLOB;
UPDATE makings SET doc = CAST(id AS TEXT);
CREATE UNIQUE INDEX makings_by_doc ON makings (doc);
INSERT INTO documents (id, kind, created, changed, title, binned)
    SELECT doc, 'making', changed, changed, box, gone FROM makings;
INSERT INTO revisions (id, doc, parent, body, what, burst, made, who)
    SELECT s.n + m.id, m.doc, NULL, json_object('made', m.made, 'count', m.count, 'box', m.box, 'for', m.whom,
            'contents', m.contents, 'card', m.card, 'card-title', m.title, 'fit', m.fit, 'gap', m.gap,
            'minutes', CASE WHEN m.minutes <= 0 THEN '' WHEN m.minutes = CAST(m.minutes AS INTEGER)
                THEN CAST(CAST(m.minutes AS INTEGER) AS TEXT) ELSE CAST(m.minutes AS TEXT) END,
            'change', m.change, 'notes', m.notes), 'As it was kept before', '', m.changed, m.who
    FROM makings m, shift s ORDER BY m.id;
ALTER TABLE makings DROP COLUMN edits;
ALTER TABLE makings DROP COLUMN changed;
ALTER TABLE makings DROP COLUMN who;
DROP TABLE shift;

UPDATE documents SET head = (SELECT max(r.id) FROM revisions r WHERE r.doc = documents.id)
    WHERE kind IN ('list', 'batch', 'making');
