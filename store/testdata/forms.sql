-- What databases of older forms held: the rows of each form come with the tables that it brought.
-- form 1
INSERT INTO projects (id, head, created, changed) VALUES ('tray', 2, '2025-01-02T10:00:00.000Z', '2025-01-03T10:00:00.000Z');
INSERT INTO revisions (id, project, parent, document, what, burst, made) VALUES
    (1, 'tray', NULL, '{"brevium":1,"name":"Écheveau"}', 'new', '', '2025-01-02T10:00:00.000Z'),
    (2, 'tray', 1, '{"brevium":1,"name":"Écheveau de lin"}', 'Name', 'w:1', '2025-01-03T10:00:00.000Z');
INSERT INTO projects (id, head, created, changed, binned) VALUES ('spoilt', 3, '2025-01-02T10:00:00.000Z',
    '2025-01-03T10:00:00.000Z', '2025-01-04T10:00:00.000Z');
INSERT INTO revisions (id, project, parent, document, what, burst, made) VALUES
    (3, 'spoilt', NULL, '{', 'new', '', '2025-01-02T10:00:00.000Z');
-- form 2
INSERT INTO things (name, item, kept) VALUES ('spool', '{"name":"spool","shape":"cylinder","count":1}', '2025-02-01T10:00:00.000Z');
-- form 3
INSERT INTO cards (project, revision, program, line, trouble) VALUES ('tray', 2, 'v', 'a line', 0);
-- form 4
INSERT INTO shop_revisions (id, parent, document, what, burst, made) VALUES
    (1, NULL, '{"brevium-shop":1,"currency":"k","cards":[{"id":"oat","title":"Oat","gsm":"250"}]}', 'ships', '', '2025-03-01T10:00:00.000Z'),
    (2, 1, '{"brevium-shop":1,"currency":"kr","cards":[{"id":"oat","title":"Oat","gsm":"250"}]}', 'Coin', 'w:9', '2025-03-02T10:00:00.000Z'),
    (3, 2, '{', 'spoilt', '', '2025-03-02T10:00:00.000Z');
INSERT INTO shop (one, head) VALUES (1, 2);
-- form 5
INSERT INTO cutlists (id, document, revision, changed, gone) VALUES
    ('labels', '{"name":"Labels","sheets":[{"name":"A4","width":"210 mm","height":"297 mm"}],"pieces":[{"name":"l","width":"4","height":"3"}]}',
        7, '2025-04-01T10:00:00.000Z', 0),
    ('gone', '{"sheets":[],"pieces":null}', 1, '2025-04-02T10:00:00.000Z', 1), ('odd', 'junk', 1, '2025-04-03T10:00:00.000Z', 0);
-- form 6
INSERT INTO bench (project, step, print, done, making, at) VALUES ('tray', 'score:base', 'p', 3, 'm', '2025-05-01T10:00:00.000Z');
INSERT INTO bench_times (making, step, title, seconds, minutes, at) VALUES ('m', 'score:base', 'Score', 60, 2, '2025-05-01T10:00:00.000Z');
INSERT INTO shares (token, project, revision, document, made) VALUES ('token', 'tray', 2, '{"brevium":1,"name":"Shared"}', '2025-05-01T10:00:00.000Z');
-- form 7
INSERT INTO folders (folder, project) VALUES ('Fair', 'tray');
INSERT INTO makings (id, key, project, revision, document, made, count, box, whom, contents, style, card, title, fit, gap, change,
    notes, minutes, times, sheets, cost, edits, changed, who, found, gone) VALUES
    (1, 'k1', 'tray', 2, '{"brevium":1,"name":"Écheveau"}', '2025-06-01', 12, 'Écheveau', 'Wren', 'linen', 'tray-lid', 'oat', 'Oat',
        'right', '', 'deeper', 'two evenings', 42.5, '{"Score":12}', 3, 250, 2, '2025-06-02T10:00:00.000Z', 'Ash',
        20240 * 268435456 + 1, NULL),
    (2, 'k2', '', 0, '', '2025-06-03', 1, 'From a list', '', '', '', '', '', '', '', '', '', 0, '', 0, 0, 1,
        '2025-06-03T10:00:00.000Z', '', 0, '2025-06-04T10:00:00.000Z');
INSERT INTO makings_text (rowid, words) VALUES (20240 * 268435456 + 1, 'Écheveau Wren linen two evenings');
INSERT INTO photos (id, making, width, height, says, data, small, at) VALUES ('photo', 1, 4, 3, 'with the bow', x'01', x'02',
    '2025-06-02T10:00:00.000Z');
INSERT INTO batches (id, document, revision, changed) VALUES
    ('fair', '{"name":"Fair","orders":[{"id":"o1","name":"Wren","box":{"brevium":1,"name":"Écheveau"},"count":12}],"hours":{"sat":"4"}}',
        3, '2025-07-01T10:00:00.000Z'), ('junk', 'junk', 1, '2025-07-01T10:00:00.000Z');
INSERT INTO batch_past (batch, revision, document) VALUES
    ('fair', 1, '{"name":"First","orders":[],"hours":{}}'),
    ('fair', 2, '{"name":"Fair","orders":[{"id":"o1","name":"Wren","box":{"brevium":1,"name":"Écheveau"},"count":9}],"hours":{"sat":"4"}}');
INSERT INTO batch_ticks (batch, ordered, stage, done, at, who) VALUES ('fair', 'o1', 'Trim', 9, '2025-07-02T10:00:00.000Z', 'Ash'),
    ('fair', 'o1', 'Score', 0, '2025-07-02T10:00:00.000Z', '');
INSERT INTO collections (token, folder, made) VALUES ('ctoken', 'Fair', '2025-07-02T10:00:00.000Z');
INSERT INTO collection_boxes (token, place, project, revision, document) VALUES ('ctoken', 1, 'tray', 2, '{"brevium":1,"name":"Shared"}');
INSERT INTO settings (name, value) VALUES ('passphrase', 'x');
-- form 8
UPDATE makings SET planned = '[{"size":"1","inside":"1","pieces":[{"name":"base","count":1,"card":"Oat","width":"1","height":"2"}]}]' WHERE id = 1;
-- form 9
INSERT INTO documents (id, kind, created, changed, title, words) VALUES ('tin', 'box', '2025-08-01T10:00:00.000Z', '2025-08-01T10:00:00.000Z', 'Tin', 'tin');
INSERT INTO revisions (id, doc, body, what, burst, made, who) VALUES (9000, 'tin', '{"brevium":1,"name":"Tin","card":{"stock":"mint-160"}}', 'Begun', '', '2025-08-01T10:00:00.000Z', '');
UPDATE documents SET head = 9000 WHERE id = 'tin';
-- form 10
UPDATE documents SET words = lower(replace(title, 'É', 'é')) WHERE kind = 'box';
INSERT INTO uses (card, doc, own) VALUES ('mint-160', 'tin', 0);
-- form 11
-- form 12
-- form 13
INSERT INTO phones (id, name, made, seen) VALUES ('phone', 'Kitchen phone', '2026-12-01T10:00:00.000Z', '2026-12-01T10:00:00.000Z');
INSERT INTO timers (project, step, what, ends) VALUES ('tray', 'drying', 'Let it dry', '2026-12-01T11:00:00.000Z');
INSERT INTO bench_photos (id, project, width, height, says, data, small, at) VALUES ('drying', 'tray', 4, 3, 'drying', x'01', x'02',
    '2026-12-01T10:00:00.000Z');
INSERT INTO printers (id, name, across, down, usual) VALUES ('hall', 'hall printer', 0.992, 0.994, 1);
