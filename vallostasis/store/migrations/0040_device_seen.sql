-- When a paired device was last seen, to the hour: bookkeeping, not a fact. A device unused for a week is let in no longer.
CREATE TABLE device_seen (
    paired_device_id  uuid PRIMARY KEY REFERENCES paired_device,
    seen_at           timestamptz NOT NULL
);
