-- +goose Up
-- The device that an adjustment was made on; empty where nobody had to sign in.
ALTER TABLE adjustments ADD COLUMN origin TEXT NOT NULL DEFAULT '';

-- A device that was signed in with the passcode. Only a hash of what it keeps is stored.
CREATE TABLE sessions (
    token_hash TEXT PRIMARY KEY,
    device     TEXT NOT NULL,
    expires_at DATETIME NOT NULL
);

-- +goose Down
DROP TABLE sessions;
ALTER TABLE adjustments DROP COLUMN origin;
