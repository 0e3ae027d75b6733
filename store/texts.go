package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"fmt"

	"brevium/core/document"
)

// Long texts that the revisions of a document have in common, such as the boxes of a batch's orders, are kept once: in
// the revision stands their sum, as a text where an object would be.

// body writes a document as it is kept.
func (k *Kept[D]) body(ctx context.Context, tx *sql.Tx, d D) (string, error) {
	if k.long == nil {
		return string(k.form.Encode(d)), nil
	}
	d = document.Clone(d)
	for _, text := range k.long(&d) {
		var tight bytes.Buffer
		if len(*text) == 0 || json.Compact(&tight, *text) != nil {
			continue
		}
		sum := sha256.Sum256(tight.Bytes())
		name := hex.EncodeToString(sum[:16])
		if _, err := tx.ExecContext(ctx, `INSERT INTO texts (sum, text) VALUES (?, ?) ON CONFLICT DO NOTHING`, name,
			tight.String()); err != nil {
			return "", err
		}
		*text = json.RawMessage(`"` + name + `"`)
	}
	return string(k.form.Encode(d)), nil
}

// whole puts the long texts of a document back in their places.
func (k *Kept[D]) whole(ctx context.Context, q asker, d *D) error {
	if k.long == nil {
		return nil
	}
	known := map[string]string{}
	for _, text := range k.long(d) {
		var sum string
		if len(*text) == 0 || (*text)[0] != '"' || json.Unmarshal(*text, &sum) != nil {
			continue
		}
		if known[sum] == "" {
			full, err := ask[string](ctx, q, `SELECT text FROM texts WHERE sum = ?`, sum)
			if err != nil {
				return fmt.Errorf("a part of it is missing: %w", err)
			}
			known[sum] = full
		}
		*text = json.RawMessage(known[sum])
	}
	return nil
}
